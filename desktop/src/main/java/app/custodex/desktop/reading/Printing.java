package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.base.Problem;
import app.custodex.desktop.desk.Desk;
import java.util.List;
import java.util.Optional;
import javafx.application.Platform;
import javafx.print.PrinterJob;
import javafx.stage.Window;

/** Prints through the system's print dialog. Interface thread only. */
final class Printing {
    private final Desk desk;

    Printing(Desk desk) {
        this.desk = desk;
    }

    static Problem note(String what, String advice) {
        return Problem.note("Printing", what, advice);
    }

    /**
     * Prints things, one a line.
     *
     * @param numbers in the catalogue, in their order
     * @param under below the title
     * @param window above which the dialog is shown
     */
    void print(OpenPhone phone, int[] numbers, String title, String under, Window window) {
        var words = desk.words();
        if (numbers.length == 0) {
            tell("There is nothing on the list to print", "Choose other dates, kinds or words");
        } else if (numbers.length > Printout.MOST_LINES) {
            tell(
                    "That is " + words.count(numbers.length) + " lines, more than " + words.count(Printout.MOST_LINES),
                    "Choose fewer by their dates, kinds or words");
        } else {
            var count =
                    words.count(numbers.length, "line", "lines") + ", printed " + words.moment(desk.now(), desk.now());
            desk.work()
                    .start(
                            "Printing",
                            () -> {
                                phone.askToPrint();
                                return new PrintLines(phone, words).of(numbers);
                            },
                            lines -> ask(new Printout(title, List.of(under, count), lines), window));
        }
    }

    /** Shows the system's print dialog. */
    private void ask(Printout printout, Window window) {
        var job = Optional.ofNullable(PrinterJob.createPrinterJob());
        if (job.isEmpty()) {
            tell("No printer is set up on this computer", "Set one up in the system's settings, then print again");
        } else if (job.get().showPrintDialog(window)) {
            lay(job.get(), printout);
        } else {
            job.get().cancelJob();
        }
    }

    private void lay(PrinterJob job, Printout printout) {
        job.getJobSettings().setJobName(printout.title());
        var paper = job.getJobSettings().getPageLayout();
        var pages = new PrintPages(printout, paper.getPrintableWidth(), paper.getPrintableHeight());
        pages.lay(() -> print(job, pages, 0));
    }

    private void print(PrinterJob job, PrintPages pages, int number) {
        if (number == pages.size()) {
            boolean sent = job.endJob();
            tell(
                    sent ? desk.words().count(number, "page", "pages") + " went to the printer" : "It was not printed",
                    sent ? "The printer's own window shows when it is done" : "Look at the printer, then print again");
        } else if (job.printPage(pages.page(number))) {
            Platform.runLater(() -> print(job, pages, number + 1));
        } else {
            job.cancelJob();
            tell(
                    "The printer stopped at page " + (number + 1) + " of " + pages.size(),
                    "Look at the printer, then print again");
        }
    }

    private void tell(String what, String advice) {
        desk.work().tell(note(what, advice));
    }
}
