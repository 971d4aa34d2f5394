package app.custodex.strongroom;

import app.custodex.base.Digests;
import app.custodex.base.Json;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/** An OCFL inventory (OCFL 1.1 §3.5): which stored file makes up which layer. */
record Inventory(
        String id,
        String type,
        String digestAlgorithm,
        String head,
        Map<String, List<String>> manifest,
        Map<String, Version> versions) {
    static final String NAME = "inventory.json";
    static final String SIDECAR = NAME + "." + Digests.ALGORITHM;
    private static final String TYPE = "https://ocfl.io/1.1/spec/#inventory";

    record Version(Instant created, String message, User user, Map<String, List<String>> state) {
        Version {
            Objects.requireNonNull(created);
            Objects.requireNonNull(state);
        }
    }

    record User(String name, String address) {}

    Inventory {
        Objects.requireNonNull(id);
        Objects.requireNonNull(head);
        Objects.requireNonNull(manifest);
        Objects.requireNonNull(versions);
    }

    static Inventory none(String id) {
        return new Inventory(id, TYPE, Digests.ALGORITHM, "v0", Map.of(), Map.of());
    }

    /** @throws IOException when it is not there, doesn't match its sidecar, or makes no sense */
    static Inventory read(Path folder) throws IOException {
        return parse(readBytes(folder));
    }

    /** Empty when {@link #read} fails. */
    static Optional<Inventory> whole(Path folder) {
        try {
            return Optional.of(read(folder));
        } catch (IOException damaged) {
            return Optional.empty();
        }
    }

    /** @throws IOException when it is not there, or doesn't match its sidecar */
    static byte[] readBytes(Path folder) throws IOException {
        var bytes = Files.readAllBytes(folder.resolve(NAME));
        if (!Arrays.equals(Files.readAllBytes(folder.resolve(SIDECAR)), sidecar(bytes))) {
            throw new IOException(folder.resolve(NAME) + " doesn't match its digest");
        }
        return bytes;
    }

    /** @throws IOException when it makes no sense */
    static Inventory parse(byte[] bytes) throws IOException {
        var inventory = Json.PAGE.readValue(bytes, Inventory.class);
        if (!ObjectFolder.isVersion(inventory.head) || !inventory.versions.containsKey(inventory.head)) {
            throw new IOException("an inventory that doesn't describe its head " + inventory.head);
        }
        return inventory;
    }

    /** The inventory as it was when a version was the newest one: every version keeps it so (OCFL 1.1 §3.5). */
    Inventory upTo(int number) {
        var kept = new LinkedHashMap<String, Version>();
        var digests = new HashSet<String>();
        for (int version = 1; version <= number; version++) {
            var there = versions.get("v" + version);
            if (there != null) {
                kept.put("v" + version, there);
                digests.addAll(there.state().keySet());
            }
        }
        var contents = new LinkedHashMap<>(manifest);
        contents.keySet().retainAll(digests);
        return new Inventory(id, type, digestAlgorithm, "v" + number, contents, kept);
    }

    byte[] bytes() throws IOException {
        return Json.PAGE.writeValueAsBytes(this);
    }

    static byte[] sidecar(byte[] inventory) {
        return (Digests.of(inventory) + " " + NAME + "\n").getBytes(StandardCharsets.US_ASCII);
    }

    int headNumber() {
        return Integer.parseInt(head.substring(1));
    }

    /** Logical paths of a version with the digests of their content. */
    Map<String, String> digests(int version) {
        var result = new LinkedHashMap<String, String>();
        var found = versions.get("v" + version);
        if (found != null) {
            found.state().forEach((digest, paths) -> paths.forEach(path -> result.put(path, digest)));
        }
        return result;
    }

    /** Logical paths of all stored content of items, whatever version stored it, with their digests. */
    Map<String, String> contents() {
        var result = new HashMap<String, String>();
        for (var version : versions.values()) {
            version.state()
                    .forEach((digest, paths) -> paths.stream()
                            .filter(path -> path.startsWith("layer-"))
                            .forEach(path -> result.putIfAbsent(path, digest)));
        }
        return result;
    }

    /** Where a logical path of a version lies below the object's folder. */
    Optional<String> contentPath(int version, String logical) {
        return Optional.ofNullable(digests(version).get(logical)).flatMap(this::contentPath);
    }

    Optional<String> contentPath(String digest) {
        return Optional.ofNullable(manifest.get(digest)).map(List::getFirst);
    }

    /**
     * The inventory with one version more.
     *
     * @param fresh digests of the new stored files, by logical path
     * @param state digests of everything in the new version, by logical path
     */
    Inventory next(Map<String, String> fresh, Map<String, String> state, Instant created, String message) {
        var name = "v" + (headNumber() + 1);
        var newManifest = new LinkedHashMap<>(manifest);
        fresh.forEach((logical, digest) -> newManifest.putIfAbsent(digest, List.of(name + "/content/" + logical)));
        var byDigest = new LinkedHashMap<String, List<String>>();
        state.forEach((logical, digest) ->
                byDigest.computeIfAbsent(digest, d -> new ArrayList<>()).add(logical));
        var newVersions = new LinkedHashMap<>(versions);
        newVersions.put(
                name,
                new Version(
                        created.truncatedTo(ChronoUnit.SECONDS),
                        message,
                        new User("Custodex", "urn:custodex:bench"),
                        byDigest));
        return new Inventory(id, TYPE, Digests.ALGORITHM, name, newManifest, newVersions);
    }
}
