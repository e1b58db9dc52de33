@readings
Feature: Replacing a meter

  Scenario: The new meter begins lower
    Given meter "M-2207" of a member of the lower town
    And its previous reading is 4100
    When the fitter replaces the meter by "M-3001" at 4150
    And the clerk enters 12
    Then the form answers "accepted"
    And the ledger holds 62 m³ for the month

  Scenario: A reading is too high
    Given meter "M-2207" of a member of the lower town
    And its previous reading is 4100
    When the clerk enters 100000
    Then the form answers "too large"
    And the ledger stays as it was

  Scenario: The old meter is read no more
    Given the fitter has replaced meter "M-2207"
    When the clerk enters 4200 for "M-2207"
    Then the form answers "this meter was replaced"

  @by-hand
  Scenario: The old meter is sealed
    Given the fitter has replaced meter "M-2207"
    Then a seal with its number is on the old meter
