package app.custodex.practice.island;

/** What islanders have in common. */
enum Circle {
    CHOIR,
    FERRY,
    SCHOOL,
    SEALS,
    KIN,
    FARM
}
