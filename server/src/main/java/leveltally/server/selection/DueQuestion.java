package leveltally.server.selection;

import com.fasterxml.jackson.annotation.JsonIgnore;
import java.time.LocalDate;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.PlannedRuns;
import leveltally.core.ledger.WayId;
import leveltally.core.money.Money;
import leveltally.core.selection.CashWay;
import leveltally.core.selection.ClaimOrder;
import leveltally.core.selection.Criteria;
import leveltally.core.selection.Filters;
import leveltally.core.selection.Marks;
import leveltally.core.selection.Paying;
import leveltally.core.selection.RelativeDay;
import leveltally.core.selection.Span;
import leveltally.core.vendors.VendorId;
import leveltally.server.ledger.BankAccount;
import org.jspecify.annotations.Nullable;

/**
 * The sentence of the Due station as a screen sends it and as it is kept under a name. Days are dates or words such as
 * {@code next Friday}; amounts are typed text; what is null does not narrow.
 *
 * @param account the bank account to pay from, by {@code wayToPay}; null: by its first
 * @param checkDate {@link PlannedRuns#USUAL} for what is usual of the account; so are {@code dueBy} and {@code nextRun}
 * @param ledgerDate null: the check date
 * @param nextRun null: discounts do not matter
 * @param limit an amount, or {@code available} for the cash there is
 * @param out entry numbers taken out by hand, such as {@code 7001-7090.7731}; {@code in} those taken in
 */
public record DueQuestion(
        long account,
        @Nullable Long wayToPay,
        @Nullable String checkDate,
        @Nullable String ledgerDate,
        @Nullable String dueBy,
        @Nullable String nextRun,
        @Nullable List<Long> vendors,
        @Nullable String vendorGroup,
        @Nullable Integer priorityFrom,
        @Nullable Integer priorityTo,
        @Nullable String datedFrom,
        @Nullable String datedTo,
        @Nullable String referenceFrom,
        @Nullable String referenceTo,
        @Nullable Long entryFrom,
        @Nullable Long entryTo,
        @Nullable String amountFrom,
        @Nullable String amountTo,
        @Nullable Boolean credits,
        Paying.@Nullable Grouping grouping,
        @Nullable ClaimOrder order,
        @Nullable String smallest,
        @Nullable String limit,
        @Nullable CashWay way,
        @Nullable String out,
        @Nullable String in) {

    /** The word for a limit of what there is. */
    public static final String AVAILABLE = "available";

    /** The plain sentence: what is due, or loses its discount before the next run. */
    public static DueQuestion of(long account, String checkDate, String dueBy, @Nullable String nextRun) {
        return new DueQuestion(
                account, null, checkDate, null, dueBy, nextRun, null, null, null, null, null, null, null, null, null,
                null, null, null, null, null, null, null, null, null, null, null);
    }

    public DueQuestion toVendors(List<Long> only) {
        return with(words -> words.vendors = only);
    }

    public DueQuestion toGroup(String only) {
        return with(words -> words.vendorGroup = only);
    }

    /** From its account by this way. */
    public DueQuestion by(WayId way) {
        return with(words -> words.wayToPay = way.value());
    }

    /** From another account, by one of its ways. */
    public DueQuestion from(BankAccountId other, WayId way) {
        return with(words -> {
            words.account = other.value();
            words.wayToPay = way.value();
        });
    }

    public DueQuestion inLedgerOn(LocalDate date) {
        return with(words -> words.ledgerDate = date.toString());
    }

    public DueQuestion marked(@Nullable String outByHand, @Nullable String inByHand) {
        return with(words -> {
            words.out = outByHand;
            words.in = inByHand;
        });
    }

    public DueQuestion paying(boolean useCredits, @Nullable String upTo, @Nullable CashWay by) {
        return with(words -> {
            words.credits = useCredits;
            words.limit = upTo;
            words.way = by;
        });
    }

    /** With every day as a date, so that it means the same tomorrow. */
    public DueQuestion onDates(Criteria criteria) {
        LocalDate next = criteria.nextRun();
        return with(words -> {
            words.checkDate = criteria.checkDate().toString();
            words.ledgerDate = criteria.ledgerDate().toString();
            words.dueBy = criteria.dueBy().toString();
            words.nextRun = next == null ? null : next.toString();
        });
    }

    private DueQuestion with(Consumer<Words> change) {
        Words words = new Words(this);
        change.accept(words);
        return words.question();
    }

    /** The words of a question while some of them are exchanged. */
    private static final class Words {
        private long account;
        private @Nullable Long wayToPay;
        private @Nullable String checkDate;
        private @Nullable String ledgerDate;
        private @Nullable String dueBy;
        private @Nullable String nextRun;
        private @Nullable List<Long> vendors;
        private @Nullable String vendorGroup;
        private @Nullable Integer priorityFrom;
        private @Nullable Integer priorityTo;
        private @Nullable String datedFrom;
        private @Nullable String datedTo;
        private @Nullable String referenceFrom;
        private @Nullable String referenceTo;
        private @Nullable Long entryFrom;
        private @Nullable Long entryTo;
        private @Nullable String amountFrom;
        private @Nullable String amountTo;
        private @Nullable Boolean credits;
        private Paying.@Nullable Grouping grouping;
        private @Nullable ClaimOrder order;
        private @Nullable String smallest;
        private @Nullable String limit;
        private @Nullable CashWay way;
        private @Nullable String out;
        private @Nullable String in;

        Words(DueQuestion q) {
            account = q.account;
            wayToPay = q.wayToPay;
            checkDate = q.checkDate;
            ledgerDate = q.ledgerDate;
            dueBy = q.dueBy;
            nextRun = q.nextRun;
            vendors = q.vendors;
            vendorGroup = q.vendorGroup;
            priorityFrom = q.priorityFrom;
            priorityTo = q.priorityTo;
            datedFrom = q.datedFrom;
            datedTo = q.datedTo;
            referenceFrom = q.referenceFrom;
            referenceTo = q.referenceTo;
            entryFrom = q.entryFrom;
            entryTo = q.entryTo;
            amountFrom = q.amountFrom;
            amountTo = q.amountTo;
            credits = q.credits;
            grouping = q.grouping;
            order = q.order;
            smallest = q.smallest;
            limit = q.limit;
            way = q.way;
            out = q.out;
            in = q.in;
        }

        DueQuestion question() {
            return new DueQuestion(
                    account,
                    wayToPay,
                    checkDate,
                    ledgerDate,
                    dueBy,
                    nextRun,
                    vendors,
                    vendorGroup,
                    priorityFrom,
                    priorityTo,
                    datedFrom,
                    datedTo,
                    referenceFrom,
                    referenceTo,
                    entryFrom,
                    entryTo,
                    amountFrom,
                    amountTo,
                    credits,
                    grouping,
                    order,
                    smallest,
                    limit,
                    way,
                    out,
                    in);
        }
    }

    public BankAccountId bankAccount() {
        return new BankAccountId(account);
    }

    /** The way to pay it names; null for the first of its account. */
    public @Nullable WayId wayId() {
        return wayToPay == null ? null : new WayId(wayToPay);
    }

    @JsonIgnore
    public boolean isLimited() {
        return limit != null && !limit.isBlank();
    }

    /** True where it narrows by amounts, which are of the currency it is asked in. */
    @JsonIgnore
    public boolean saysAmounts() {
        return blank(amountFrom) != null || blank(amountTo) != null || blank(smallest) != null;
    }

    @JsonIgnore
    public boolean isLimitedToAvailable() {
        return limit != null && limit.strip().equalsIgnoreCase(AVAILABLE);
    }

    public LocalDate checkDay(BankAccount from, LocalDate today) {
        LocalDate day =
                isUsual(checkDate) ? from.runs().checkDate(today) : day(checkDate, "checkDate", "check date", today);
        return Criteria.checkDate(day, today);
    }

    private static boolean isUsual(@Nullable String day) {
        return day != null && day.strip().equalsIgnoreCase(PlannedRuns.USUAL);
    }

    /** The ledger date it asks for; the check date where it names none. */
    public LocalDate ledgerDay(BankAccount from, LocalDate today) {
        return ledgerDate == null || ledgerDate.isBlank()
                ? checkDay(from, today)
                : day(ledgerDate, "ledgerDate", "ledger date", today);
    }

    /** @param available the cash there is, where the limit asks for it */
    Criteria criteria(BankAccount from, int graceDays, LocalDate today, @Nullable Money available) {
        LocalDate check = checkDay(from, today);
        LocalDate due = isUsual(dueBy) ? from.runs().dueBy(check) : day(dueBy, "dueBy", "day things are due by", today);
        LocalDate next = nextRun == null
                ? null
                : isUsual(nextRun) ? from.runs().nextRun(check) : day(nextRun, "nextRun", "next run", today);
        return new Criteria(
                from.currency(),
                from.payingWay(wayId()).method(),
                check,
                ledgerDay(from, today),
                due,
                next,
                graceDays,
                filters(from, today),
                paying(from, available));
    }

    private Filters filters(BankAccount from, LocalDate today) {
        return new Filters(
                vendors == null ? Set.of() : vendors.stream().map(VendorId::new).collect(Collectors.toSet()),
                blank(vendorGroup),
                Span.of(priorityFrom, priorityTo, "priorityFrom", "priorities"),
                Span.of(
                        optionalDay(datedFrom, "datedFrom", today),
                        optionalDay(datedTo, "datedTo", today),
                        "datedFrom",
                        "invoice dates"),
                Span.of(blank(referenceFrom), blank(referenceTo), "referenceFrom", "references"),
                Span.of(entryFrom, entryTo, "entryFrom", "entry numbers"),
                Span.of(
                        amount(amountFrom, from, "amountFrom"),
                        amount(amountTo, from, "amountTo"),
                        "amountFrom",
                        "amounts"));
    }

    private Paying paying(BankAccount from, @Nullable Money available) {
        return new Paying(
                credits != null && credits,
                grouping == null ? Paying.Grouping.PAYEE : grouping,
                order == null ? ClaimOrder.PAYEE : order,
                smallest(from),
                isLimitedToAvailable()
                        ? (available == null ? null : available.max(Money.zero(from.currency())))
                        : amount(limit, from, "limit"),
                way == null ? CashWay.STOP_AT_THE_LINE : way);
    }

    /** What was marked by hand. */
    public Marks marks() {
        return new Marks(EntryRanges.read(out), EntryRanges.read(in));
    }

    /** What was marked by hand, and these besides. */
    Marks marks(Marks besides) {
        Set<leveltally.core.invoices.InvoiceId> allOut = new HashSet<>(EntryRanges.read(out));
        Set<leveltally.core.invoices.InvoiceId> allIn = new HashSet<>(EntryRanges.read(in));
        allOut.addAll(besides.out());
        allOut.removeAll(besides.in());
        allIn.addAll(besides.in());
        allIn.removeAll(besides.out());
        return new Marks(allOut, allIn);
    }

    private static LocalDate day(@Nullable String text, String field, String name, LocalDate today) {
        if (text == null || text.isBlank()) {
            throw Refusal.invalidField("day-missing", field, "The " + name + " is missing. Choose a day.");
        }
        return RelativeDay.read(text, today);
    }

    private static @Nullable LocalDate optionalDay(@Nullable String text, String field, LocalDate today) {
        return text == null || text.isBlank() ? null : day(text, field, field, today);
    }

    /** What was asked for, or else what the account keeps to. */
    private @Nullable Money smallest(BankAccount from) {
        Money asked = amount(smallest, from, "smallest");
        return asked != null || from.smallest().isZero() ? asked : from.smallest();
    }

    private static @Nullable Money amount(@Nullable String text, BankAccount from, String field) {
        return text == null || text.isBlank() ? null : Money.typed(text, from.currency(), field);
    }

    private static @Nullable String blank(@Nullable String text) {
        return text == null || text.isBlank() ? null : text.strip();
    }
}
