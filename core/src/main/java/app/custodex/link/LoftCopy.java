package app.custodex.link;

import java.time.Instant;
import java.util.Optional;

/**
 * A copy that a Loft account holds.
 *
 * @param id of the copy within the account
 * @param title what it is, in words
 * @param made UTC
 * @param bytes its size
 * @param family of the phone that wrote it
 * @param app for a copy of one chat app, which; empty for a whole phone
 */
public record LoftCopy(String id, String title, Instant made, long bytes, Family family, Optional<Kind> app) {}
