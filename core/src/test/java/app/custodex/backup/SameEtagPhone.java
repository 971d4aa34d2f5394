package app.custodex.backup;

/** A phone whose link says of each file only its size and time. */
final class SameEtagPhone extends FakePhone {
    SameEtagPhone(String identifier) {
        super(identifier);
    }

    @Override
    protected String etagOf(int version) {
        return "";
    }
}
