package app.custodex.extract.handover;

import app.custodex.base.Json;
import app.custodex.extract.Extraction.Order;
import app.custodex.extract.Material;
import app.custodex.extract.Origin.Fact;
import app.custodex.extract.OutFolder;
import app.custodex.extract.Pages;
import gg.jte.Content;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/**
 * The page from which everything in a package is found, with or without a network: it asks for nothing, and no script runs in it but its
 * own.
 */
public final class StartPage {
    private static final String SCRIPT = script();

    private StartPage() {}

    /**
     * What lies in the package at its top.
     *
     * @param address as a reference from the page
     * @param files how many are in it, when it is a folder
     */
    public record Place(String name, String address, int files) {}

    static void write(Material material, List<Order> orders, List<String> leftOut, IndexedFiles files, OutFolder data)
            throws IOException {
        var addresses = new ArrayList<String>();
        var top = new LinkedHashMap<String, Integer>();
        for (var file : files.places()) {
            var path = file.map(data::relative).orElse("");
            addresses.add(path.isEmpty() ? "" : address(path));
            if (!path.isEmpty()) {
                top.merge(path.contains("/") ? path.substring(0, path.indexOf('/') + 1) : path, 1, Integer::sum);
            }
        }
        var groups = orders.stream()
                .filter(order -> order.count() > 0)
                .map(order -> new Fact(
                        order.group().label(),
                        order.count() + ", as " + order.format().label()))
                .toList();
        var places = top.entrySet().stream()
                .map(each -> new Place(
                        each.getKey(), address(each.getKey()), each.getKey().endsWith("/") ? each.getValue() : 0))
                .toList();
        var names = Json.LINE.writeValueAsString(addresses).replace("<", "\\u003c");
        Content index = output -> {
            output.writeContent("{\"files\":" + names + ",\"things\":[\n");
            try (var lines = new BufferedReader(new InputStreamReader(files.lines(), StandardCharsets.UTF_8))) {
                for (var line = lines.readLine(); line != null; line = lines.readLine()) {
                    output.writeContent(line + "\n");
                }
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
            output.writeContent("]}");
        };
        data.text(
                "Start here",
                ".html",
                text -> Pages.render(
                        "start.jte",
                        Map.of(
                                "phone", material.phone(),
                                "facts", material.origin().facts(),
                                "groups", groups,
                                "places", places,
                                "leftOut", leftOut,
                                "index", index,
                                "script", SCRIPT,
                                "allowed", "sha256-" + digest()),
                        text));
    }

    /** Each part of a path by itself, so that no name can pass for something else (RFC 3986, 3.3). */
    private static String address(String path) {
        var address = new StringBuilder();
        for (byte b : path.getBytes(StandardCharsets.UTF_8)) {
            char c = (char) (b & 0xff);
            boolean plain = c < 0x80 && (Character.isLetterOrDigit(c) || "-._~/".indexOf(c) >= 0);
            address.append(plain ? String.valueOf(c) : String.format(Locale.ROOT, "%%%02X", b & 0xff));
        }
        return address.toString();
    }

    private static String script() {
        try (var in = Optional.ofNullable(StartPage.class.getResourceAsStream("/app/custodex/extract/start.js"))
                .orElseThrow()) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static String digest() {
        try {
            return Base64.getEncoder()
                    .encodeToString(
                            MessageDigest.getInstance("SHA-256").digest(SCRIPT.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException e) {
            throw new AssertionError("every Java platform has SHA-256", e);
        }
    }
}
