package leveltally.server.setup;

import java.time.LocalDate;
import java.util.Currency;
import java.util.List;
import leveltally.core.checks.Signing;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * Everything about one bank account.
 *
 * @param accountNumber its end; the rest stays sealed
 * @param layout the layout of the files the bank gets; empty without positive pay
 * @param decisionHour until when its bank is told what to return; empty for none
 * @param mayChange its name, floor, smallest payment and runs; {@code maySet} all that hangs on it
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
        String decisionHour,
        @Nullable LocalDate closedOn,
        List<AccountWay> ways,
        List<OtherWay> otherWays,
        List<BankHoliday> holidays,
        String inUse,
        long version,
        boolean mayChange,
        boolean maySet,
        boolean mayCorrect,
        boolean maySign) {

    /**
     * @param elsewhere true where its payments are made elsewhere and recorded here
     * @param byFile true where a file for the bank carries them
     * @param owed for a company card, to whom and on which account its payments are owed; empty for all others
     * @param series null where its payments carry no check numbers
     */
    record AccountWay(
            long id,
            String name,
            String words,
            boolean elsewhere,
            boolean byFile,
            String owed,
            @Nullable AccountSeries series) {}

    /**
     * @param printed false for a check book, whose checks are written by hand
     * @param printsNumbers whether we print the numbers ourselves
     * @param correction a next number that waits for a second person
     */
    record AccountSeries(
            long id,
            String prefix,
            long first,
            long next,
            @Nullable Long last,
            String stock,
            String micr,
            String currencyWord,
            String validity,
            boolean printed,
            boolean printsNumbers,
            boolean sameNumberReprint,
            SigningView signing,
            @Nullable WaitingNumber correction) {}

    /**
     * Who signs; amounts empty for what is not limited.
     *
     * @param pictured whether a picture signs
     */
    record SigningView(boolean pictured, String upTo, String secondAbove, String most) {
        static SigningView of(Signing signing, Currency currency) {
            return new SigningView(
                    signing.picture() != null,
                    words(signing.pictureUpTo(), currency),
                    words(signing.secondAbove(), currency),
                    words(signing.most(), currency));
        }

        private static String words(@Nullable Long minor, Currency currency) {
            return minor == null
                    ? ""
                    : Money.ofMinor(minor, currency.getCurrencyCode()).toString();
        }
    }

    /** What could carry money from the account besides checks. */
    record OtherWay(String method, String words) {}

    record WaitingNumber(long to, String reason, String who, boolean mine) {}

    record BankHoliday(LocalDate day, String name) {}
}
