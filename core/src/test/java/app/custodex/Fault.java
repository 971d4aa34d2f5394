package app.custodex;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/** Marks a test that shows how a fault is survived; {@link FaultCount} counts them at the end of the test report. */
@Target(ElementType.METHOD)
@Retention(RetentionPolicy.RUNTIME)
public @interface Fault {
    Of value();

    /** What can go wrong. */
    enum Of {
        CABLE,
        STALL,
        FULL_DISK,
        READ_ERROR,
        PERMISSION,
        PROCESS_KILLED,
        DAMAGED_CONTENT,
        DAMAGED_MANIFEST,
        TWO_PROGRAMS,
        CLOCK_SET_BACK
    }
}
