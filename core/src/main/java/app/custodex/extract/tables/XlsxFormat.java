package app.custodex.extract.tables;

import app.custodex.extract.Batch;
import app.custodex.extract.Choice;
import app.custodex.extract.Chosen;
import app.custodex.extract.Clean;
import app.custodex.extract.Format;
import app.custodex.extract.OutFolder;
import app.custodex.extract.Split;
import app.custodex.model.KindGroup;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;

/**
 * Anything as a workbook (ISO/IEC 29500): times and lengths as such, so that they can be counted with; words are always words, so that no
 * spreadsheet runs them.
 */
public final class XlsxFormat implements Format {
    /** Rows of a sheet; those beyond go on the next. */
    private static final int MOST_ROWS = 1_048_576;
    /** Characters in a cell, by the specification of the format. */
    private static final int LONGEST = 32_767;

    private static final String CUT = " … (cut here)";
    private static final double SECONDS_A_DAY = 86_400;
    /** ISO/IEC 29500, 22.9.2.19: what looks like an escaped character is escaped. */
    private static final Pattern LOOKS_ESCAPED = Pattern.compile("_(?=x[0-9A-Fa-f]{4}_)");

    @Override
    public String code() {
        return "xlsx";
    }

    @Override
    public String label() {
        return "Workbook for spreadsheets (XLSX)";
    }

    @Override
    public String leavesOut() {
        return "Leaves out photos and attachments, which are only named";
    }

    @Override
    public Set<KindGroup> groups() {
        return ALL;
    }

    @Override
    public List<Choice> choices(KindGroup group) {
        var more = new ArrayList<>(Totals.choices(group));
        more.addAll(ContactColumns.choices(group));
        return Split.choices(group, more);
    }

    @Override
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        Split.write(batch, chosen, out, (part, folder) -> book(part, chosen, folder));
    }

    private static void book(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        var columns = Columns.of(batch, chosen);
        var titles = Columns.titles(columns).toList();
        var totals = Totals.of(batch, chosen);
        out.file(batch.title(), ".xlsx", to -> {
            try (var book = new Workbook(to, "Custodex", null)) {
                int sheets = 1;
                var sheet = sheet(book, name(batch, sheets), titles);
                int row = 1;
                var rows = batch.each(thing -> {
                    totals.ifPresent(all -> all.add(thing));
                    return Columns.row(columns, thing);
                });
                for (var cells : rows) {
                    if (row == MOST_ROWS) {
                        sheet.finish();
                        sheet = sheet(book, name(batch, ++sheets), titles);
                        row = 1;
                    }
                    put(sheet, row, cells, batch);
                    row++;
                    if (row % 1_000 == 0) {
                        sheet.flush();
                    }
                }
                sheet.finish();
                if (totals.isPresent()) {
                    var last = sheet(book, Totals.TITLE, totals.get().headings());
                    var all = totals.get().rows();
                    for (int i = 0; i < all.size(); i++) {
                        put(last, i + 1, all.get(i), batch);
                    }
                    last.finish();
                }
            }
        });
    }

    private static String name(Batch batch, int number) {
        return number == 1 ? batch.group().label() : batch.group().label() + " " + number;
    }

    private static void put(Worksheet sheet, int row, List<Cell> cells, Batch batch) {
        for (int i = 0; i < cells.size(); i++) {
            put(sheet, row, i, cells.get(i), batch);
        }
    }

    private static Worksheet sheet(Workbook book, String name, List<String> titles) {
        var sheet = book.newWorksheet(name);
        for (int i = 0; i < titles.size(); i++) {
            sheet.value(0, i, titles.get(i));
            sheet.style(0, i).bold().set();
        }
        sheet.freezePane(0, 1);
        return sheet;
    }

    private static void put(Worksheet sheet, int row, int column, Cell cell, Batch batch) {
        switch (cell) {
            case Cell.Text text -> {
                var words = words(text.text(), batch);
                if (!words.isEmpty()) {
                    sheet.inlineString(row, column, words);
                }
            }
            case Cell.Number number -> sheet.value(row, column, number.value());
            case Cell.Fraction fraction -> sheet.value(row, column, fraction.value());
            case Cell.When when -> {
                sheet.value(row, column, when.local());
                sheet.style(row, column).format("yyyy-mm-dd hh:mm:ss").set();
            }
            case Cell.Length length -> {
                sheet.value(row, column, length.duration().toSeconds() / SECONDS_A_DAY);
                sheet.style(row, column).format("[h]:mm:ss").set();
            }
        }
    }

    private static String words(String text, Batch batch) {
        var clean = LOOKS_ESCAPED.matcher(Clean.text(text)).replaceAll("_x005F_");
        if (clean.length() <= LONGEST) {
            return clean;
        }
        batch.leftOut("ends of texts that are too long for a cell");
        int until = LONGEST - CUT.length();
        return clean.substring(0, Character.isHighSurrogate(clean.charAt(until - 1)) ? until - 1 : until) + CUT;
    }
}
