package app.custodex.catalogue;

import static org.junit.jupiter.api.Assertions.assertEquals;

import app.custodex.model.MediaFile;
import app.custodex.model.MediaFile.Fact;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

final class ShapeTest {
    private static MediaFile picture(String... facts) {
        var all = Stream.of(facts)
                .map(fact -> fact.split("=", 2))
                .map(fact -> new Fact(fact[0], fact[1]))
                .toList();
        return new MediaFile(
                new ThingId("roll/a.jpg", ""),
                ThingKind.PICTURE,
                "",
                "a.jpg",
                Optional.empty(),
                1,
                Optional.empty(),
                Optional.empty(),
                all,
                "");
    }

    /** EXIF 2.32, 4.6.4: from 5 on the sides are swapped. */
    @ParameterizedTest
    @CsvSource({"1, 4000, 3000", "3, 4000, 3000", "5, 3000, 4000", "6, 3000, 4000", "8, 3000, 4000", "9, 4000, 3000"})
    void aPictureIsAsWideAsItStands(int orientation, int width, int height) {
        var shape = Shape.of(picture("Size=4000 × 3000", "Orientation=" + orientation))
                .orElseThrow();
        assertEquals(new Shape(width, height), shape);
        assertEquals((float) width / height, Shape.ratio(shape.packed()), 1e-6);
    }

    @Test
    void whatSaysNothingOfItHasNone() {
        for (var facts : List.of("Size=large", "Size=0 × 300", "Camera=Pinhole 3")) {
            assertEquals(Optional.empty(), Shape.of(picture(facts)), facts);
        }
        var wide = Shape.of(picture("Size=99999 × 10")).orElseThrow();
        assertEquals(65_535, wide.width());
        assertEquals(6_553.5f, Shape.ratio(wide.packed()));
    }
}
