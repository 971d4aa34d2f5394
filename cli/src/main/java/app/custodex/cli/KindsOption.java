package app.custodex.cli;

import app.custodex.backup.Selection;
import app.custodex.link.Kind;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine.Option;
import picocli.CommandLine.TypeConversionException;

/** Which kinds are meant. */
final class KindsOption {
    /** Kinds by the words that manifests use. */
    static final class Converter implements ITypeConverter<Kind> {
        @Override
        public Kind convert(String word) {
            return Arrays.stream(Kind.values())
                    .filter(kind -> kind.code().equals(word))
                    .findFirst()
                    .orElseThrow(() -> new TypeConversionException("no kind is called " + word + "; there are "
                            + String.join(
                                    ", ",
                                    Arrays.stream(Kind.values()).map(Kind::code).toList())));
        }
    }

    @Option(
            names = "--only",
            paramLabel = "KIND",
            split = ",",
            converter = Converter.class,
            description = "Take only these kinds: contacts, photos, … (default: all)")
    private List<Kind> only = List.of();

    @Option(
            names = "--not",
            paramLabel = "KIND",
            split = ",",
            converter = Converter.class,
            description = "Leave these kinds out")
    private List<Kind> not = List.of();

    Selection selection() {
        var kinds = EnumSet.allOf(Kind.class);
        if (!only.isEmpty()) {
            kinds.retainAll(only);
        }
        not.forEach(kinds::remove);
        return Selection.of(kinds);
    }
}
