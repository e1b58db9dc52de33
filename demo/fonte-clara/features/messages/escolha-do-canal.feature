# language: pt
@messages
Funcionalidade: Escolha do canal
  O membro recebe cada mensagem na sua língua e pelo canal que escolheu.

  Cenário: Sem consentimento não há SMS
    Dado um membro que não consentiu SMS
    Quando a mensagem "conta em atraso" é enviada
    Então o canal é "carta"

  Cenário: Urgente nunca vai por carta
    Dado um membro que consentiu SMS
    Quando a mensagem urgente "corte amanhã" é enviada
    Então o canal é "SMS"

  Esquema do Cenário: Cada um na sua língua
    Dado um membro que lê <língua>
    Quando a mensagem "conta em atraso" é enviada
    Então o texto está em <língua>

    Exemplos:
      | língua    |
      | português |
      | inglês    |
      | francês   |
