package app.custodex.desktop.desk;

import app.custodex.strongroom.CheckReport;
import app.custodex.strongroom.LayerRecord;
import java.util.Optional;

/** A layer and what the last check of it found. */
public record KeptLayer(LayerRecord record, Optional<CheckReport> lastCheck) {
    public boolean sound() {
        return lastCheck.filter(CheckReport::sound).isPresent();
    }

    public boolean damaged() {
        return lastCheck.filter(report -> !report.sound()).isPresent();
    }
}
