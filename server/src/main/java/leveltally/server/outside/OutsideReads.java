package leveltally.server.outside;

import java.time.LocalDate;
import java.time.YearMonth;
import java.util.Collection;
import java.util.Currency;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import leveltally.core.Refusal;
import leveltally.core.batches.Said;
import leveltally.core.checks.NumberState;
import leveltally.core.ledger.LedgerAccount;
import leveltally.core.ledger.Period;
import leveltally.core.money.Money;
import leveltally.core.outside.OutsideNumber;
import leveltally.core.people.Role;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.VendorId;
import leveltally.server.batches.TypedBatches;
import leveltally.server.batches.TypedLines;
import leveltally.server.checks.NumberSeries;
import leveltally.server.checks.Series;
import leveltally.server.company.Companies;
import leveltally.server.invoices.OpenItems;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.Periods;
import leveltally.server.ledger.WayToPay;
import leveltally.server.vendors.Vendors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Reads all that typed rows are understood by; as many statements for many rows as for one. */
@Component
class OutsideReads {
    private final Vendors vendors;
    private final OpenItems openItems;
    private final TypedBatches batches;
    private final OutsideNumbers numbers;
    private final Series series;
    private final TypedLines lines;
    private final Periods periods;
    private final Companies companies;

    OutsideReads(
            Vendors vendors,
            OpenItems openItems,
            TypedBatches batches,
            OutsideNumbers numbers,
            Series series,
            TypedLines lines,
            Periods periods,
            Companies companies) {
        this.vendors = vendors;
        this.openItems = openItems;
        this.batches = batches;
        this.numbers = numbers;
        this.series = series;
        this.lines = lines;
        this.periods = periods;
        this.companies = companies;
    }

    /** Where the rows stand: the account, its way, and the batch they are recorded in already; 0 for none. */
    record On(BankAccount account, WayToPay way, long batch, LocalDate today, Set<Role> roles) {}

    /**
     * Everything that was read for all rows.
     *
     * @param series null where the way has no check numbers
     */
    record Read(
            Map<String, Vendors.Called> vendors,
            Map<Long, Long> remitTos,
            TypedLines.Known lines,
            List<OpenItems.OwedTo> fitting,
            Map<Long, String> reserving,
            @Nullable NumberSeries series,
            Map<String, String> used,
            Map<Long, NumberState> known,
            Map<YearMonth, Period> periods,
            int graceDays) {}

    Read read(On on, List<OutsideRow> rows) {
        NumberSeries of =
                on.way().method() == PaymentMethod.CHECK ? series.of(on.way().id()) : null;
        Map<String, Vendors.Called> called =
                vendors.called(rows.stream().map(row -> row.vendor().strip()).collect(Collectors.toSet()));
        Set<VendorId> ids = called.values().stream().map(Vendors.Called::id).collect(Collectors.toSet());
        Map<String, LedgerAccount> codes = lines.accounts();
        Set<String> references = new HashSet<>();
        Set<Money> amounts = new HashSet<>();
        for (OutsideRow row : rows) {
            references(row, codes).forEach(references::add);
            if (row.said().isBlank()) {
                amount(row, on.account().currency()).ifPresent(amounts::add);
            }
        }
        TypedLines.Known known = lines.know(codes, on.account().currency(), ids, references, on.batch());
        List<OpenItems.OwedTo> fitting = openItems.owing(ids, amounts);
        Set<Long> invoices = Stream.of(known.owed(), fitting)
                .flatMap(Collection::stream)
                .map(one -> one.invoice().id().value())
                .collect(Collectors.toSet());
        List<String> typed =
                rows.stream().flatMap(row -> number(row, of).stream()).toList();
        return new Read(
                called,
                vendors.usualRemitTos(ids),
                known,
                fitting,
                batches.reserving(invoices, on.batch()),
                of,
                numbers.used(on.way().id(), typed, on.batch()),
                of == null
                        ? Map.of()
                        : numbers.known(
                                on.way().id(),
                                typed.stream()
                                        .map(number -> OutsideNumber.ofCheck(number, of.range()))
                                        .toList()),
                periods.known(Stream.concat(rows.stream().map(OutsideRow::paidOn), Stream.of(on.today()))
                        .map(YearMonth::from)
                        .collect(Collectors.toSet())),
                companies.company().graceDays());
    }

    private static List<String> references(OutsideRow row, Map<String, LedgerAccount> codes) {
        try {
            Said said = Said.read(row.said(), codes::containsKey);
            if (said instanceof Said.Ahead ahead) {
                return List.of(ahead.reference());
            }
            return said instanceof Said.Invoices invoices ? invoices.references() : List.of();
        } catch (Refusal unreadable) {
            return List.of();
        }
    }

    static Optional<Money> amount(OutsideRow row, Currency currency) {
        try {
            return Optional.of(Money.typed(row.amount(), currency, "amount"));
        } catch (Refusal unreadable) {
            return Optional.empty();
        }
    }

    private static List<String> number(OutsideRow row, @Nullable NumberSeries of) {
        try {
            return List.of(kept(row, of));
        } catch (Refusal unreadable) {
            return List.of();
        }
    }

    /** A number in the form it is kept in. */
    static String kept(OutsideRow row, @Nullable NumberSeries of) {
        return of == null
                ? OutsideNumber.ofReference(row.number())
                : of.range().prefix() + OutsideNumber.ofCheck(row.number(), of.range());
    }
}
