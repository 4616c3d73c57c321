package leveltally.core.checks;

/** The paper that the checks of a series are printed on. */
public enum Stock {
    /** Number and MICR line are on the paper; we print neither. */
    NUMBERED,
    /** We print both. */
    BLANK
}
