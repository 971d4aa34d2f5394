package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.media.Pixels;
import app.custodex.extract.pdf.PagePictures;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Optional;
import javafx.application.Platform;
import javafx.print.PageLayout;
import javafx.print.PageOrientation;
import javafx.print.PrinterJob;
import javafx.scene.image.ImageView;
import javafx.stage.Window;

/** Prints a PDF document that was written, page by page, through the system's print dialog. Interface thread only. */
final class PaperPrint {
    private static final int DOTS_PER_INCH = 200;
    private static final double POINTS_PER_INCH = 72;

    private final Desk desk;

    PaperPrint(Desk desk) {
        this.desk = desk;
    }

    /** @param window above which the dialog is shown */
    void print(OpenPhone phone, Path pdf, Window window) {
        desk.work()
                .start(
                        "Printing",
                        () -> {
                            phone.askToPrint();
                            return PagePictures.of(pdf);
                        },
                        pages -> ask(pages, String.valueOf(pdf.getFileName()), window));
    }

    private void ask(PagePictures pages, String name, Window window) {
        var job = Optional.ofNullable(PrinterJob.createPrinterJob());
        if (job.isEmpty()) {
            close(pages);
            tell("No printer is set up on this computer", "Set one up in the system's settings, then print again");
        } else if (job.get().showPrintDialog(window)) {
            job.get().getJobSettings().setJobName(name);
            page(job.get(), pages, 0);
        } else {
            close(pages);
            job.get().cancelJob();
        }
    }

    /** Draws a page aside, and prints it here. */
    private void page(PrinterJob job, PagePictures pages, int number) {
        if (number == pages.count()) {
            close(pages);
            boolean sent = job.endJob();
            tell(
                    sent ? desk.words().count(number, "page", "pages") + " went to the printer" : "It was not printed",
                    sent ? "The printer's own window shows when it is done" : "Look at the printer, then print again");
            return;
        }
        var layout = layout(job, pages.wide(number));
        int dots = (int) (layout.getPrintableWidth() / POINTS_PER_INCH * DOTS_PER_INCH);
        var printed = new boolean[1];
        Runnable ended = () -> {
            if (!printed[0]) {
                stop(job, pages, number);
            }
        };
        desk.work()
                .start(
                        "Printing",
                        () -> pages.page(number, dots),
                        drawn -> {
                            var view = new ImageView(Pixels.image(drawn));
                            view.setPreserveRatio(true);
                            view.setFitWidth(layout.getPrintableWidth());
                            view.setFitHeight(layout.getPrintableHeight());
                            printed[0] = job.printPage(layout, view);
                            if (printed[0]) {
                                Platform.runLater(() -> page(job, pages, number + 1));
                            }
                        },
                        ended);
    }

    private static PageLayout layout(PrinterJob job, boolean wide) {
        var chosen = job.getJobSettings().getPageLayout();
        return job.getPrinter()
                .createPageLayout(
                        chosen.getPaper(),
                        wide ? PageOrientation.LANDSCAPE : PageOrientation.PORTRAIT,
                        chosen.getLeftMargin(),
                        chosen.getRightMargin(),
                        chosen.getTopMargin(),
                        chosen.getBottomMargin());
    }

    private void stop(PrinterJob job, PagePictures pages, int number) {
        job.cancelJob();
        tell(
                "The printer stopped at page " + (number + 1) + " of " + pages.count(),
                "Look at the printer, then print again");
        close(pages);
    }

    private static void close(PagePictures pages) {
        try {
            pages.close();
        } catch (IOException e) {
            // It was only read.
        }
    }

    private void tell(String what, String advice) {
        desk.work().tell(Printing.note(what, advice));
    }
}
