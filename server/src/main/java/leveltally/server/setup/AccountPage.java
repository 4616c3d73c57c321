package leveltally.server.setup;

import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Everything about one bank account.
 *
 * @param accountNumber its end; the rest stays sealed
 * @param layout the layout of the files the bank gets; empty without positive pay
 * @param inUse what keeps it from being closed, in words; empty when nothing does
 */
record AccountPage(
        long id,
        String name,
        String bankName,
        String currency,
        String routingNumber,
        String accountNumber,
        String cash,
        String floor,
        String smallest,
        @Nullable LocalDate thisRun,
        @Nullable LocalDate nextRun,
        String layout,
        @Nullable LocalDate closedOn,
        List<Way> ways,
        List<Holiday> holidays,
        String inUse,
        long version,
        boolean mayChange,
        boolean mayCorrect) {

    /** @param series null where its payments carry no check numbers */
    record Way(long id, String name, String words, @Nullable Numbers series) {}

    /** @param correction a next number that waits for a second person */
    record Numbers(
            long id,
            String prefix,
            long first,
            long next,
            @Nullable Long last,
            String stock,
            String micr,
            String currencyWord,
            String validity,
            @Nullable Correction correction) {}

    record Correction(long to, String reason, String who, boolean mine) {}

    record Holiday(LocalDate day, String name) {}
}
