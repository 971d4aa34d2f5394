package app.custodex.cli;

import app.custodex.model.ThingKind;
import java.util.Arrays;
import java.util.Locale;
import java.util.stream.Collectors;
import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine.TypeConversionException;

/** A kind of thing, by its word, in singular or plural. */
final class ThingKindOption implements ITypeConverter<ThingKind> {
    @Override
    public ThingKind convert(String word) {
        var wanted = word.toLowerCase(Locale.ROOT);
        return Arrays.stream(ThingKind.values())
                .filter(kind -> kind.code().equals(wanted) || (kind.code() + "s").equals(wanted))
                .findFirst()
                .orElseThrow(() -> new TypeConversionException("There is no kind \"" + word + "\". Kinds: "
                        + Arrays.stream(ThingKind.values()).map(ThingKind::code).collect(Collectors.joining(", "))));
    }
}
