package app.custodex.strongroom;

import app.custodex.base.Problem;
import app.custodex.link.Kind;
import app.custodex.link.Listed;
import app.custodex.link.PhonePath;
import com.fasterxml.jackson.databind.annotation.JsonDeserialize;
import com.fasterxml.jackson.databind.annotation.JsonSerialize;
import java.time.Instant;
import java.util.Optional;

/**
 * One item of a phone in one layer.
 *
 * @param path where it lay on the phone
 * @param type what it is
 * @param size bytes
 * @param modified last change by the phone's clock, UTC
 * @param etag what the phone said about its version; may be empty
 * @param digest SHA-512 of the content in hexadecimal; empty when it was not saved
 * @param place where the content is stored; empty for a link and for what could not be saved
 * @param target what a symbolic link says; empty for a file
 * @param problem why it, or a part of it, is missing
 * @param origin where its bytes came from, and when; empty for a link and for what could not be saved
 */
@JsonSerialize(using = ItemJson.Writer.class)
@JsonDeserialize(using = ItemJson.Reader.class)
public record ManifestItem(
        PhonePath path,
        Type type,
        Kind kind,
        long size,
        Instant modified,
        String etag,
        String digest,
        Optional<Place> place,
        Optional<String> target,
        Optional<Problem> problem,
        Optional<Origin> origin) {
    /** What an item is. */
    public enum Type {
        FILE("file"),
        FOLDER("folder"),
        /** A symbolic link, which is kept as what it says. */
        LINK("link"),
        /** Something without content, or something that is no item at all; its problem says what. */
        LEFT_OUT("left-out");

        private final String code;

        Type(String code) {
            this.code = code;
        }

        /** How the list of items writes it. */
        String code() {
            return code;
        }
    }

    /**
     * @param source the family of phone, or the kind of source, that it was read from
     * @param read when its bytes were read, by this computer's clock, UTC, to the second
     */
    public record Origin(String source, Instant read) {}

    /**
     * @param content logical path of a stored file within the object
     * @param offset where the item's bytes begin in it; they are not interrupted
     */
    public record Place(String content, long offset) {}

    static ManifestItem stored(Listed.File file, Kind kind, long size, String digest, Place place, Origin origin) {
        return new ManifestItem(
                file.path(),
                Type.FILE,
                kind,
                size,
                file.modified(),
                file.etag(),
                digest,
                Optional.of(place),
                Optional.empty(),
                Optional.empty(),
                Optional.of(origin));
    }

    public static ManifestItem missed(Listed.File file, Kind kind, Problem problem) {
        return new ManifestItem(
                file.path(),
                Type.FILE,
                kind,
                file.size(),
                file.modified(),
                file.etag(),
                "",
                Optional.empty(),
                Optional.empty(),
                Optional.of(problem),
                Optional.empty());
    }

    /** An item of a layer below that could not be looked at this time. */
    public static ManifestItem missed(ManifestItem before, Problem problem) {
        return new ManifestItem(
                before.path(),
                Type.FILE,
                before.kind(),
                before.size(),
                before.modified(),
                before.etag(),
                "",
                Optional.empty(),
                Optional.empty(),
                Optional.of(problem),
                Optional.empty());
    }

    public static ManifestItem link(Listed.Link link, Kind kind, Problem problem) {
        return noContent(
                link.path(), Type.LINK, kind, link.modified(), Optional.of(link.target()), Optional.of(problem));
    }

    public static ManifestItem folder(Listed.Folder folder) {
        return noContent(folder.path(), Type.FOLDER, Kind.OTHER, folder.modified(), Optional.empty(), Optional.empty());
    }

    public static ManifestItem leftOut(Listed.Refused refused) {
        return noContent(
                refused.path(),
                Type.LEFT_OUT,
                Kind.OTHER,
                Instant.EPOCH,
                Optional.empty(),
                Optional.of(refused.problem()));
    }

    private static ManifestItem noContent(
            PhonePath path,
            Type type,
            Kind kind,
            Instant modified,
            Optional<String> target,
            Optional<Problem> problem) {
        return new ManifestItem(
                path, type, kind, 0, modified, "", "", Optional.empty(), target, problem, Optional.empty());
    }

    /** Whether it is counted among the phone's items. */
    public boolean counts() {
        return type == Type.FILE || type == Type.LINK;
    }

    /** Whether it, or a part of it, is missing. */
    public boolean missed() {
        return problem.filter(found -> found.grade() != Problem.Grade.NOTE).isPresent();
    }

    public boolean saved() {
        return place.isPresent();
    }

    /** Whether the phone's listing says that this is still the same content. */
    public boolean matches(Listed.File file) {
        return saved() && size == file.size() && modified.equals(file.modified()) && etag.equals(file.etag());
    }
}
