package app.custodex.app;

/** On whose behalf something is done to the data of a phone. That there is no customer is a choice that has to be said. */
public sealed interface Mandate {
    /** For the customer of a docket. */
    record OfDocket(int number) implements Mandate {}

    /** For nobody but the shop: the phone, or what is copied, is its own. */
    record OfShop() implements Mandate {}

    static Mandate ofDocket(int number) {
        return new OfDocket(number);
    }

    static Mandate ofShop() {
        return new OfShop();
    }
}
