@messages
Feature: Notices before a restriction

  Scenario: After 30 days the member is noticed
    Given a bill that is 30 days overdue
    When the night run ends
    Then the supply is Noticed
    And the member gets this letter:
      """
      Your bill is overdue. Please pay within 30 days,
      or the supply will be restricted.
      """

  Scenario: After 60 days the supply is restricted
    Given a bill that is 60 days overdue
    When the night run ends
    Then the supply is Restricted

  Scenario: A payment lifts the restriction
    Given the supply is Restricted
    When the member pays the bill
    Then the supply is Active

  Scenario: An appeal stops the clock
    Given the supply is Noticed
    When the member lodges an appeal
    Then the supply stays Noticed until it is decided

  @by-hand @slow
  Scenario: A letter arrives before the restriction
    Given the supply is Noticed
    Then the letter reaches the member within 5 days
