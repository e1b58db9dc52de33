@billing
Feature: Social tariff

  @smoke
  Scenario Outline: Who gets the social tariff
    Given a household of <persons> persons in the <bracket> bracket
    And arrears: <arrears>
    When the member applies for the social tariff
    Then the application is <decision>

    Examples:
      | persons | bracket | arrears | decision |
      | 1       | low     | none    | granted  |
      | 3       | low     | none    | granted  |
      | 5       | middle  | none    | granted  |
      | 2       | middle  | none    | refused  |
      | 4       | high    | none    | refused  |
      | 3       | low     | yes     | refused  |

  Scenario: The tariff holds from the next bill
    Given the application was granted on 2026-03-10
    When the bill of March is made
    Then the bill uses the usual tariff
    And the bill of April uses the social tariff

  Scenario: A refusal gives its reason
    Given a household with arrears
    When the member applies for the social tariff
    Then the application is refused
    And the letter says "arrears"
