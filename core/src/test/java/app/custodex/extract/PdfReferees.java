package app.custodex.extract;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeSet;
import org.verapdf.core.VeraPDFException;
import org.verapdf.gf.foundry.VeraGreenfieldFoundryProvider;
import org.verapdf.pdfa.Foundries;
import org.verapdf.pdfa.flavours.PDFAFlavour;
import org.verapdf.pdfa.results.TestAssertion;

/** Programs and libraries that had no part in writing a PDF file say what they find in it. */
public final class PdfReferees {
    private PdfReferees() {}

    /** The text of a file, as pdftotext of Poppler reads it. */
    public static String text(Path file) throws IOException {
        return run(0, List.of("pdftotext", "-enc", "UTF-8", file.toString(), "-"));
    }

    /** What is a heading, a row or a cell, as pdfinfo of Poppler tells it, with the text of each. */
    public static String structure(Path file) throws IOException {
        return run(0, List.of("pdfinfo", "-struct-text", file.toString()));
    }

    /** How many pictures pdfimages of Poppler finds. */
    public static long pictures(Path file) throws IOException {
        return run(0, List.of("pdfimages", "-list", file.toString()))
                .lines()
                .filter(line -> line.contains(" image "))
                .count();
    }

    /** That qpdf finds no fault in how the file is built, but that its library counts two objects too many. */
    public static void checkForm(Path file) throws IOException {
        var said = run(3, List.of("qpdf", "--check", file.toString()));
        assertEquals(1, said.split("WARNING", -1).length - 1, said);
        assertTrue(said.contains("the highest object number"), said);
    }

    private static String run(int code, List<String> command) throws IOException {
        var process = new ProcessBuilder(command).redirectErrorStream(true).start();
        var said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        try {
            assertEquals(code, process.waitFor(), said);
        } catch (InterruptedException e) {
            throw new AssertionError(e);
        }
        return said;
    }

    /** The rules of ISO 19005-2, level A, that a file breaks, as veraPDF sees it. */
    public static List<String> brokenArchiveRules(Path file) throws IOException {
        VeraGreenfieldFoundryProvider.initialise();
        try (var in = Files.newInputStream(file);
                var parser = Foundries.defaultInstance().createParser(in, PDFAFlavour.PDFA_2_A);
                var validator = Foundries.defaultInstance().createValidator(PDFAFlavour.PDFA_2_A, false)) {
            var broken = new TreeSet<String>();
            for (var check : validator.validate(parser).getTestAssertions()) {
                if (check.getStatus() == TestAssertion.Status.FAILED) {
                    broken.add(check.getRuleId().getClause() + "-"
                            + check.getRuleId().getTestNumber() + " " + check.getMessage() + " at "
                            + check.getLocation().getContext());
                }
            }
            return new ArrayList<>(broken);
        } catch (VeraPDFException e) {
            throw new IOException(e);
        }
    }
}
