package app.custodex.calendar;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.model.Event;
import app.custodex.model.Moment;
import app.custodex.model.ThingId;
import biweekly.ICalVersion;
import biweekly.io.ParseContext;
import biweekly.io.scribe.property.RecurrenceRuleScribe;
import biweekly.parameter.ICalParameters;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Date;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;
import java.util.TimeZone;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The worked examples of RFC 5545 §3.8.5.3, and a second library (biweekly's own expansion) for random rules. */
class OccurrencesTest {
    private static final ZoneId NEW_YORK = ZoneId.of("America/New_York");
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("yyyyMMdd", Locale.ROOT);
    private static final Instant EVER = Instant.parse("2100-01-01T00:00:00Z");

    private static Event event(Optional<Moment> start, String rule, List<Moment> except, List<Moment> also) {
        return new Event(
                new ThingId("calendar", "1"),
                "",
                "",
                "uid",
                "t",
                "",
                "",
                start,
                Optional.empty(),
                rule,
                except,
                also,
                Optional.empty(),
                List.of(),
                List.of());
    }

    private static Event event(String start, String rule) {
        var local = LocalDate.parse(start, DAY).atTime(9, 0);
        return event(
                Optional.of(new Moment.At(local.atZone(NEW_YORK).toInstant(), Optional.of(NEW_YORK))),
                rule,
                List.of(),
                List.of());
    }

    private static List<LocalDateTime> times(Event event, int most) {
        return new Occurrences(event, NEW_YORK)
                .between(Instant.EPOCH, EVER, most, List.of()).stream()
                        .map(moment -> moment.instant(NEW_YORK).atZone(NEW_YORK).toLocalDateTime())
                        .toList();
    }

    /** Each is at nine in the morning in New York, before and after the clocks change; the days are those that the RFC prints. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "19970902|FREQ=DAILY;COUNT=10|0902 0903 0904 0905 0906 0907 0908 0909 0910 0911",
                "19970902|FREQ=DAILY;INTERVAL=10;COUNT=5|0902 0912 0922 1002 1012",
                "19970902|FREQ=WEEKLY;COUNT=10|0902 0909 0916 0923 0930 1007 1014 1021 1028 1104",
                "19970902|FREQ=WEEKLY;UNTIL=19971007T000000Z;WKST=SU;BYDAY=TU,TH|0902 0904 0909 0911 0916 0918 0923 0925 0930 1002",
                "19970901|FREQ=WEEKLY;INTERVAL=2;UNTIL=19971224T000000Z;WKST=SU;BYDAY=MO,WE,FR|0901 0903 0905 0915 0917 0919 0929"
                        + " 1001 1003 1013 1015 1017 1027 1029 1031 1110 1112 1114 1124 1126 1128 1208 1210 1212 1222",
                "19970902|FREQ=WEEKLY;INTERVAL=2;COUNT=8;WKST=SU;BYDAY=TU,TH|0902 0904 0916 0918 0930 1002 1014 1016",
                "19970905|FREQ=MONTHLY;COUNT=3;BYDAY=1FR|0905 1003 1107",
                "19970905|FREQ=MONTHLY;UNTIL=19971224T000000Z;BYDAY=1FR|0905 1003 1107 1205",
                "19970907|FREQ=MONTHLY;INTERVAL=2;COUNT=4;BYDAY=1SU,-1SU|0907 0928 1102 1130",
                "19970922|FREQ=MONTHLY;COUNT=3;BYDAY=-2MO|0922 1020 1117",
                "19970928|FREQ=MONTHLY;COUNT=3;BYMONTHDAY=-3|0928 1029 1128",
                "19970902|FREQ=MONTHLY;COUNT=7;BYMONTHDAY=2,15|0902 0915 1002 1015 1102 1115 1202",
                "19970930|FREQ=MONTHLY;COUNT=6;BYMONTHDAY=1,-1|0930 1001 1031 1101 1130 1201",
                "19970904|FREQ=MONTHLY;COUNT=3;BYDAY=TU,WE,TH;BYSETPOS=3|0904 1007 1106",
                "19970929|FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-2;COUNT=3|0929 1030 1127",
            })
    void examplesOfTheStandard(String start, String rule, String days) {
        var expected = List.of(days.split(" ")).stream()
                .map(day -> LocalDate.parse("1997" + day, DAY).atTime(9, 0))
                .toList();
        assertEquals(expected, times(event(start, rule), expected.size() + 5));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "19970610|FREQ=YEARLY;COUNT=6;BYMONTH=6,7|19970610 19970710 19980610 19980710 19990610 19990710",
                "19970310|FREQ=YEARLY;INTERVAL=2;COUNT=6;BYMONTH=1,2,3|19970310 19990110 19990210 19990310 20010110 20010210",
                "19970101|FREQ=YEARLY;INTERVAL=3;COUNT=6;BYYEARDAY=1,100,200|19970101 19970410 19970719 20000101 20000409 20000718",
                "19970519|FREQ=YEARLY;BYDAY=20MO;COUNT=3|19970519 19980518 19990517",
                "19970512|FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO;COUNT=3|19970512 19980511 19990517",
                "19970313|FREQ=YEARLY;BYMONTH=3;BYDAY=TH;COUNT=5|19970313 19970320 19970327 19980305 19980312",
                "19980213|FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13;COUNT=4|19980213 19980313 19981113 19990813",
                "19970913|FREQ=MONTHLY;BYDAY=SA;BYMONTHDAY=7,8,9,10,11,12,13;COUNT=4|19970913 19971011 19971108 19971213",
                "19961105|FREQ=YEARLY;INTERVAL=4;BYMONTH=11;BYDAY=TU;BYMONTHDAY=2,3,4,5,6,7,8;COUNT=3|19961105 20001107 20041102",
                "19970805|FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=MO|19970805 19970810 19970819 19970824",
                "19970805|FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=SU|19970805 19970817 19970819 19970831",
                "20070115|FREQ=MONTHLY;BYMONTHDAY=15,30;COUNT=5|20070115 20070130 20070215 20070315 20070330",
            })
    void examplesOverYears(String start, String rule, String days) {
        var expected = List.of(days.split(" ")).stream()
                .map(day -> LocalDate.parse(day, DAY).atTime(9, 0))
                .toList();
        assertEquals(expected, times(event(start, rule), expected.size()));
    }

    @Test
    void aSecondLibraryFindsTheSameForRandomRules() {
        var random = new Random(11);
        int several = 0;
        for (int trial = 0; trial < 300; trial++) {
            var rule = randomRule(random);
            var start = LocalDate.of(2020 + random.nextInt(5), 1 + random.nextInt(12), 1 + random.nextInt(28))
                    .format(DAY);
            var ours = times(event(start, rule), 12);
            var theirs = new ArrayList<LocalDateTime>();
            var first = LocalDate.parse(start, DAY).atTime(9, 0);
            theirs.add(first); // the start counts always (RFC 5545 §3.8.5.3)
            var parsed = new RecurrenceRuleScribe().parseText(rule, null, new ICalParameters(), context());
            var iterator = parsed.getDateIterator(
                    Date.from(first.atZone(NEW_YORK).toInstant()), TimeZone.getTimeZone(NEW_YORK));
            while (iterator.hasNext() && theirs.size() < 40) {
                var next = iterator.next().toInstant().atZone(NEW_YORK).toLocalDateTime();
                if (!theirs.contains(next)) {
                    theirs.add(next);
                }
            }
            assertEquals(theirs.subList(0, Math.min(theirs.size(), ours.size())), ours, start + " " + rule);
            several += ours.size() > 5 ? 1 : 0;
        }
        assertTrue(several > 150, several + " rules had several times");
    }

    private static ParseContext context() {
        var context = new ParseContext();
        context.setVersion(ICalVersion.V2_0);
        return context;
    }

    private static String randomRule(Random random) {
        var days = List.of("MO", "TU", "WE", "TH", "FR", "SA", "SU");
        var interval = ";INTERVAL=" + (1 + random.nextInt(3));
        return switch (random.nextInt(5)) {
            case 0 -> "FREQ=DAILY" + interval;
            case 1 ->
                "FREQ=WEEKLY" + interval + ";BYDAY=" + days.get(random.nextInt(3)) + ","
                        + days.get(3 + random.nextInt(4));
            case 2 -> "FREQ=MONTHLY" + interval + ";BYMONTHDAY=" + (1 + random.nextInt(31));
            case 3 -> "FREQ=MONTHLY" + interval + ";BYDAY=" + (1 + random.nextInt(4)) + days.get(random.nextInt(7));
            default -> "FREQ=YEARLY;BYMONTH=" + (1 + random.nextInt(12)) + ";BYDAY=-1" + days.get(random.nextInt(7));
        };
    }

    @Test
    void whatFallsOutIsAddedOrStandsForItself() {
        var third = LocalDate.of(1997, 9, 4).atTime(9, 0).atZone(NEW_YORK).toInstant();
        var extra = LocalDate.of(1997, 9, 6).atTime(11, 0).atZone(NEW_YORK).toInstant();
        var base = event("19970902", "FREQ=DAILY;COUNT=5");
        var event = event(base.moment(), base.rule(), List.of(Moment.at(third)), List.of(Moment.at(extra)));
        assertEquals(
                List.of("0902T09", "0903T09", "0905T09", "0906T09", "0906T11"),
                times(event, 9).stream()
                        .map(time -> time.format(DateTimeFormatter.ofPattern("MMdd'T'HH", Locale.ROOT)))
                        .toList());
        // The one of the third day was moved: it is an event of its own.
        var moved = new Event(
                new ThingId("calendar", "2"),
                "",
                "",
                "uid",
                "t",
                "",
                "",
                Optional.of(Moment.at(extra)),
                Optional.empty(),
                "",
                List.of(),
                List.of(),
                Optional.of(Moment.at(third)),
                List.of(),
                List.of());
        assertEquals(
                4,
                new Occurrences(base, NEW_YORK)
                        .between(Instant.EPOCH, EVER, 9, List.of(base, moved))
                        .size());
    }

    @Test
    void daysAndFloatingTimesStayWhatTheyAre() {
        var day = event(
                Optional.of(new Moment.Day(LocalDate.of(2025, 11, 14))),
                "FREQ=YEARLY;UNTIL=20271231T000000Z",
                List.of(),
                List.of());
        assertEquals(
                List.of(
                        new Moment.Day(LocalDate.of(2025, 11, 14)),
                        new Moment.Day(LocalDate.of(2026, 11, 14)),
                        new Moment.Day(LocalDate.of(2027, 11, 14))),
                new Occurrences(day, NEW_YORK).between(Instant.EPOCH, EVER, 9, List.of()));
        var floating = event(
                Optional.of(new Moment.Floating(LocalDateTime.of(2026, 3, 28, 2, 30))),
                "FREQ=DAILY;UNTIL=20260330",
                List.of(),
                List.of());
        assertEquals(
                List.of(28, 29, 30),
                new Occurrences(floating, ZoneId.of("CET"))
                        .between(Instant.EPOCH, EVER, 9, List.of()).stream()
                                .map(moment ->
                                        ((Moment.Floating) moment).local().getDayOfMonth())
                                .toList());
    }

    @Test
    void aStrangeRuleLeavesTheEventWhereItIs() {
        for (var rule : List.of("FREQ=SOMETIMES", "COUNT=3", "FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30", "\u0000")) {
            assertEquals(1, times(event("19970902", rule), 5).size(), rule);
        }
        assertEquals(
                List.of(),
                new Occurrences(event(Optional.empty(), "FREQ=DAILY", List.of(), List.of()), NEW_YORK)
                        .between(Instant.EPOCH, EVER, 5, List.of()));
        assertEquals(
                3,
                new Occurrences(event("19970902", "FREQ=SECONDLY"), NEW_YORK)
                        .between(Instant.parse("1997-09-02T13:00:00Z"), EVER, 3, List.of())
                        .size());
    }
}
