/** What columns of requirements are called in German, French, Spanish, Portuguese and Swedish. */
export const REQUIREMENT_COLUMN_WORDS = [
  ['id', ['Anforderungsnummer', 'Anforderungs-Nr.', 'Anforderungs-ID', 'Nummer', 'Kennung', 'Numéro', 'N°', 'Nº', 'Identifiant', 'ID exigence', 'Número', 'Identificador', 'Beteckning']],
  ['parent', ['Übergeordnet', 'Elternteil', 'Oberpunkt', 'Exigence parente', 'Padre', 'Requisito padre', 'Pai', 'Requisito pai', 'Överordnad']],
  ['level', ['Ebene', 'Gliederung', 'Stufe', 'Niveau', 'Nivel', 'Nível', 'Nivå']],
  ['title', ['Titel', 'Bezeichnung', 'Überschrift', 'Anforderung', 'Kurztext', 'Titre', 'Intitulé', 'Exigence', 'Título', 'Nombre', 'Requisito', 'Nome', 'Rubrik', 'Namn', 'Krav']],
  ['text', ['Beschreibung', 'Langtext', 'Inhalt', 'Anforderungstext', 'Texte', 'Contenu', 'Texto', 'Descripción', 'Contenido', 'Descrição', 'Conteúdo', 'Beskrivning', 'Innehåll']],
  ['type', ['Art', 'Typ', 'Anforderungsart', 'Kategorie', 'Catégorie', 'Tipo', 'Categoría', 'Categoria', 'Kategori']],
  ['module', ['Modul', 'Komponente', 'Bereich', 'Teilsystem', 'Composant', 'Sous-système', 'Módulo', 'Componente', 'Subsistema', 'Komponent', 'Delsystem']],
  ['risk', ['Risiko', 'Kritikalität', 'Risque', 'Criticité', 'Riesgo', 'Risco']],
  ['likelihood', ['Eintrittswahrscheinlichkeit', 'Wahrscheinlichkeit', 'Probabilité', 'Probabilidad', 'Probabilidade', 'Sannolikhet']],
  ['impact', ['Auswirkung', 'Schaden', 'Schadenshöhe', 'Gravité', 'Impacto', 'Påverkan', 'Konsekvens']],
  ['priority', ['Priorität', 'Wichtigkeit', 'Priorité', 'Prioridad', 'Prioridade', 'Prioritet']],
  ['source', ['Quelle', 'Herkunft', 'Dokument', 'Kapitel', 'Origine', 'Fuente', 'Origen', 'Fonte', 'Origem', 'Källa']],
  ['link', ['Verweis', 'Adresse', 'Lien', 'Enlace', 'Ligação', 'Länk']],
] as const;
