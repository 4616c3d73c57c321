package leveltally.core.payments;

/** How long a check is outstanding, in bands that are drawn side by side. */
public enum AgeBand {
    UP_TO_30(30, "to 30 days"),
    UP_TO_90(90, "31 to 90 days"),
    UP_TO_180(180, "91 to 180 days"),
    UP_TO_A_YEAR(365, "181 days to a year"),
    OLDER(Long.MAX_VALUE, "more than a year");

    private final long most;
    private final String words;

    AgeBand(long most, String words) {
        this.most = most;
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** @param days since the check's date; below zero for one that is dated ahead */
    public static AgeBand of(long days) {
        for (AgeBand band : values()) {
            if (days <= band.most) {
                return band;
            }
        }
        return OLDER;
    }
}
