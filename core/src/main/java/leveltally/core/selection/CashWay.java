package leveltally.core.selection;

/** What happens where the cash limit runs out. */
public enum CashWay {
    STOP_AT_THE_LINE("stop at the line"),
    PASS_OVER("pass over and go on"),
    PART_PAY("part-pay at the line"),
    MOST_DISCOUNT("save the most discount");

    private final String words;

    CashWay(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
