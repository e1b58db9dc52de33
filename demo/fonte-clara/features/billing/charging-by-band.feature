@billing
Feature: Charging by band
  Each m³ is charged at the price of its band; only the whole bill is rounded.

  Rule: Each band has its own price

    Scenario Outline: Use within the bands
      Given a member has used <use> m³ in the month
      When the bill is made
      Then the use costs <cost> €

      Examples: inside one band
        | use | cost |
        | 0   | 0.00 |
        | 5   | 2.10 |

      Examples: across bands
        | use | cost  |
        | 6   | 2.78  |
        | 15  | 8.90  |
        | 16  | 10.00 |
        | 25  | 19.90 |
        | 26  | 21.85 |

    Scenario: All four bands on one bill
      Given a member has used 30 m³ in the month
      When the bill is made
      Then the bill has these lines:
        | band         | m³ | price |
        | 0–5          | 5  | 0.42  |
        | 6–15         | 10 | 0.68  |
        | 16–25        | 10 | 1.10  |
        | 26 and above | 5  | 1.95  |

  Rule: Only the whole bill is rounded

    Scenario: Half a cent goes up
      Given the bill comes to 12.345 €
      When the bill is made
      Then the bill says 12.35 €

    Scenario: Less than half a cent goes down
      Given the bill comes to 12.344 €
      When the bill is made
      Then the bill says 12.34 €

    Scenario: Bands are not rounded one by one
      Given two bands that come to 0.004 € each
      When the bill is made
      Then the bill says 0.01 €
