@readings
Feature: Taking a reading
  A reading is a whole number of m³. It is stored when it fits the meter,
  and refused in words when it does not.

  Background:
    Given meter "M-2207" of a member of the lower town
    And its previous reading is 4100

  Scenario: A reading inside the range is stored
    When the clerk enters 4182
    Then the form answers "accepted"
    And the ledger holds 82 m³ for the month

  # Asked for by the treasurer: nothing may be written on a refusal.
  @smoke
  Scenario Outline: A reading outside the range is refused
    When the clerk enters <reading>
    Then the form answers <answer>
    And the ledger stays as it was

    Examples:
      | reading | answer                |
      | -1      | "not a reading"       |
      | 100000  | "too large"           |
      | 12a     | "not a number"        |
      | 4182.5  | "whole m³ only"       |
      | 4099    | "lower than the last" |

  Scenario: An empty reading
    When the clerk enters nothing
    Then the form answers "give a reading"

  @smoke
  Scenario: The dial rolls over
    Given its previous reading is 99500
    When the clerk enters 120
    Then the form answers "accepted"
    And the ledger holds 620 m³ for the month

  Scenario: Two readings on one day
    Given the clerk has entered 4182 today
    When the clerk enters 4183
    Then the form answers "one reading a day"
    And the ledger is unchanged

  @by-hand
  Scenario: A reader works without a network
    Given the reader's device is offline
    When the reader enters 4182
    Then the device keeps the reading
    And it is sent when the network is back
