package app.custodex.desktop.reading;

import java.util.Optional;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.Pane;
import javafx.scene.shape.Rectangle;

/** A picture that can be looked at closely, down to its single pixels, moved about and turned. */
final class ZoomPane extends Pane {
    /** How much larger at once. */
    static final double STEP = 1.25;

    private static final double LARGEST = 32;
    /** From here on pixels are shown as squares. */
    private static final double SQUARES = 2;

    private final Runnable lookCloser;
    private final ImageView still = new ImageView();
    private ImageView view = still;
    /** In pixels of the file, upright. */
    private double fullWidth;

    private double fullHeight;
    private int quarters;
    /** Pixels of the screen for one of the file; empty for as large as fits. */
    private Optional<Double> scale = Optional.empty();
    /** Where the middle of the picture is, from the middle of the pane. */
    private double offsetX;

    private double offsetY;
    private double grabbedX;
    private double grabbedY;

    /** @param lookCloser is told when more pixels are wanted than are there */
    ZoomPane(Runnable lookCloser) {
        this.lookCloser = lookCloser;
        setId("full-picture");
        getStyleClass().add("full-ground");
        var clip = new Rectangle();
        clip.widthProperty().bind(widthProperty());
        clip.heightProperty().bind(heightProperty());
        setClip(clip);
        setMinSize(0, 0);
        still.setAccessibleText("Picture");
        still.setManaged(false);
        getChildren().setAll(still);
        addEventHandler(ScrollEvent.SCROLL, event -> {
            zoomAt(event.getDeltaY() > 0 ? STEP : 1 / STEP, event.getX(), event.getY());
            event.consume();
        });
        addEventHandler(MouseEvent.MOUSE_PRESSED, event -> {
            grabbedX = event.getX() - offsetX;
            grabbedY = event.getY() - offsetY;
            if (event.getClickCount() == 2) {
                if (scale.isPresent()) {
                    fit();
                } else {
                    zoomTo(1, event.getX(), event.getY());
                }
            }
        });
        addEventHandler(MouseEvent.MOUSE_DRAGGED, event -> {
            offsetX = event.getX() - grabbedX;
            offsetY = event.getY() - grabbedY;
            requestLayout();
        });
    }

    /**
     * Shows a picture.
     *
     * @param width of it in the file; the picture may have fewer pixels
     * @param anew whether it is another one, and not the same with more pixels
     */
    void show(Image image, double width, double height, boolean anew) {
        still.setImage(image);
        if (anew) {
            use(still);
            fullWidth = width;
            fullHeight = height;
            quarters = 0;
            fit();
        }
        requestLayout();
    }

    /** Shows a video in the place of the picture, which has its shape. */
    void follow(ImageView film) {
        film.setManaged(false);
        film.setImage(still.getImage());
        use(film);
        requestLayout();
    }

    private void use(ImageView newView) {
        view = newView;
        getChildren().setAll(view);
    }

    void clear() {
        use(still);
        still.setImage(null);
    }

    void fit() {
        scale = Optional.empty();
        offsetX = 0;
        offsetY = 0;
        requestLayout();
    }

    /** One pixel of the file is one of the screen. */
    void pixelByPixel() {
        zoomTo(1, getWidth() / 2, getHeight() / 2);
    }

    void zoomBy(double times) {
        zoomAt(times, getWidth() / 2, getHeight() / 2);
    }

    /** By a quarter, clockwise. */
    void turn() {
        quarters = (quarters + 1) % 4;
        fit();
    }

    private boolean onItsSide() {
        return quarters % 2 == 1;
    }

    private double fitting() {
        double width = onItsSide() ? fullHeight : fullWidth;
        double height = onItsSide() ? fullWidth : fullHeight;
        return width <= 0 || height <= 0 ? 1 : Math.min(1, Math.min(getWidth() / width, getHeight() / height));
    }

    private double present() {
        return scale.orElse(fitting());
    }

    private void zoomAt(double times, double x, double y) {
        double before = present();
        zoomTo(Math.clamp(before * times, Math.min(before, fitting()), LARGEST), x, y);
    }

    /** What is under a point stays there. */
    private void zoomTo(double now, double x, double y) {
        double before = present();
        double fromMiddleX = x - getWidth() / 2;
        double fromMiddleY = y - getHeight() / 2;
        offsetX = fromMiddleX - (fromMiddleX - offsetX) * now / before;
        offsetY = fromMiddleY - (fromMiddleY - offsetY) * now / before;
        scale = Optional.of(now);
        requestLayout();
    }

    @Override
    protected void layoutChildren() {
        var image = view.getImage();
        if (image == null || fullWidth <= 0) {
            return;
        }
        double now = present();
        double width = fullWidth * now;
        double height = fullHeight * now;
        keepInSight(onItsSide() ? height : width, onItsSide() ? width : height);
        view.setPreserveRatio(false);
        view.setFitWidth(width);
        view.setFitHeight(height);
        view.setSmooth(now < SQUARES);
        view.setRotate(90.0 * quarters);
        view.setLayoutX((getWidth() - width) / 2 + offsetX);
        view.setLayoutY((getHeight() - height) / 2 + offsetY);
        if (view == still && width > image.getWidth() * 1.1) {
            lookCloser.run();
        }
    }

    private void keepInSight(double width, double height) {
        double mostX = Math.max(0, (width - getWidth()) / 2);
        double mostY = Math.max(0, (height - getHeight()) / 2);
        offsetX = Math.clamp(offsetX, -mostX, mostX);
        offsetY = Math.clamp(offsetY, -mostY, mostY);
    }
}
