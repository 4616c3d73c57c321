package leveltally.core.paper;

import java.util.EnumSet;
import java.util.Set;

/** What a block of a layout says. The MICR line is none: its place is the standard's. */
public enum Says {
    COMPANY("company", Part.CHECK, Part.STUB, Part.ADVICE),
    COMPANY_ADDRESS("company's address", Part.CHECK, Part.STUB, Part.ADVICE),
    /** As large as it can be in its place. */
    LOGO("logo", Part.CHECK, Part.STUB, Part.ADVICE),
    BANK("bank", Part.CHECK),
    /** Printed where the stock is blank; on numbered stock it is on the paper. */
    NUMBER("number", Part.CHECK, Part.STUB, Part.ADVICE),
    DATE("date", Part.CHECK, Part.STUB, Part.ADVICE),
    PAYEE("payee", Part.CHECK, Part.STUB, Part.ADVICE),
    PAYEE_ADDRESS("payee's address", Part.CHECK, Part.ADVICE),
    /** In figures, framed. */
    AMOUNT("amount", Part.CHECK, Part.STUB, Part.ADVICE),
    /** The amount in words, with a rule to the end. */
    WORDS("amount in words", Part.CHECK),
    /** The vendor's references, as many as there is room for. */
    MEMO("references", Part.CHECK),
    /** A line to sign on. */
    SIGNATURE("signature line", Part.CHECK),
    /** Another one, on checks above an amount only. */
    SECOND_SIGNATURE("second signature line", Part.CHECK),
    /** How long the check is good for. */
    VALIDITY("validity", Part.CHECK),
    /** Words of the company's own. */
    TEXT("free text", Part.CHECK, Part.STUB, Part.ADVICE),
    /** What is paid, row by row, and the total. */
    LINES("lines", Part.STUB, Part.ADVICE);

    private final String words;
    private final Set<Part> parts;

    Says(String words, Part first, Part... more) {
        this.words = words;
        this.parts = EnumSet.of(first, more);
    }

    public String words() {
        return words;
    }

    /** Where it can stand. */
    public Set<Part> parts() {
        return parts;
    }
}
