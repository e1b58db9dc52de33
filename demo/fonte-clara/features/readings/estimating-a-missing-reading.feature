@readings
Feature: Estimating a missing reading

  Background:
    Given meter "M-2210" of a member of the upper town

  Scenario: On the 5th a missing reading is estimated
    Given its use in the last three months:
      | month    | use |
      | January  | 12  |
      | February | 15  |
      | March    | 18  |
    When the 5th of April begins
    Then an estimate of 15 m³ is stored
    And it is marked as estimated

  Scenario: On the 4th nothing is estimated yet
    When the 4th of April begins
    Then no estimate is stored

  Scenario: A later reading replaces the estimate
    Given an estimate of 15 m³ is stored
    When the clerk enters 4190
    Then the form answers "accepted"
    And the estimate is gone

  Scenario: A new meter has no three months
    Given the meter was fitted in March
    When the 5th of April begins
    Then the clerk is asked for a reading

  @slow
  Scenario: All meters of a town in one night
    Given 2300 meters without a reading
    When the 5th of April begins
    Then 2300 estimates are stored before 06:00
