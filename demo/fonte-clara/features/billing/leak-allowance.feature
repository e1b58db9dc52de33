@billing
Feature: Leak allowance

  Background:
    Given a member with a mean use of 10 m³

  Scenario: The part above twice the mean is cheaper
    Given the member has used 50 m³ in the month
    And a repair receipt of 30 days ago
    When the clerk grants the leak allowance
    Then 30 m³ are charged at 0.68 €

  Scenario: A receipt of 60 days is accepted
    Given a repair receipt of 60 days ago
    When the clerk grants the leak allowance
    Then the allowance is granted

  Scenario: A receipt of 61 days is too old
    Given a repair receipt of 61 days ago
    When the clerk grants the leak allowance
    Then the allowance is refused

  Scenario: A receipt of 90 days is too old
    Given a repair receipt of 90 days ago
    When the clerk grants the leak allowance
    Then the allowance is refused

  Scenario: Once in twelve months
    Given the member had an allowance 11 months ago
    When the clerk grants the leak allowance
    Then the allowance is refused
    And the ledger remains unchanged
