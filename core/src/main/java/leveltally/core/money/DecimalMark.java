package leveltally.core.money;

import java.util.regex.Pattern;

/** What parts the decimals off in a written amount; the other mark may only stand between groups of three digits. */
public enum DecimalMark {
    POINT("\\.", ",", "1225.00"),
    COMMA(",", "\\.", "1225,00");

    private final Pattern amount;
    private final Pattern groups;
    private final String example;

    DecimalMark(String decimal, String group, String example) {
        this.amount = Pattern.compile(
                "-?(?:\\d{1,15}|\\d{1,3}(?:" + group + "\\d{3}){1,4})(?:" + decimal + "\\d{1,4})?", Pattern.DOTALL);
        this.groups = Pattern.compile(group);
        this.example = example;
    }

    boolean isAmount(String text) {
        return amount.matcher(text).matches();
    }

    /** The amount as programs write it: no groups, a decimal point. */
    String plain(String text) {
        return groups.matcher(text).replaceAll("").replace(',', '.');
    }

    /** An amount with this mark. */
    public String example() {
        return example;
    }
}
