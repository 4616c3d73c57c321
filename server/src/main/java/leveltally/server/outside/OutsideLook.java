package leveltally.server.outside;

import java.time.LocalDate;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.batches.ClaimLine;
import leveltally.core.batches.Said;
import leveltally.core.checks.NumberState;
import leveltally.core.checks.Tray;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.ledger.Period;
import leveltally.core.money.Money;
import leveltally.core.outside.OutsideDay;
import leveltally.core.outside.OutsideLines;
import leveltally.core.outside.OutsideNumber;
import leveltally.core.vendors.VendorId;
import leveltally.server.batches.TypedBatches;
import leveltally.server.batches.TypedLines;
import leveltally.server.checks.NumberSeries;
import leveltally.server.invoices.OpenItems;
import leveltally.server.invoices.Prepayments;
import leveltally.server.ledger.Periods;
import leveltally.server.vendors.Vendors;
import org.springframework.stereotype.Component;

/** Understands typed rows: who was paid, what for, under which number. */
@Component
class OutsideLook {
    private final OutsideReads reads;

    OutsideLook(OutsideReads reads) {
        this.reads = reads;
    }

    List<OutsideSeen> look(OutsideReads.On on, List<OutsideRow> rows) {
        OutsideReads.Read read = reads.read(on, rows);
        Above above = new Above(new HashSet<>(), new HashSet<>(), new HashSet<>());
        List<OutsideSeen> seen = new ArrayList<>();
        for (OutsideRow row : rows) {
            seen.add(look(on, row, read, above));
        }
        return seen;
    }

    /** What the rows above took: their numbers, invoices, and what they paid ahead of. */
    private record Above(Set<String> numbers, Set<Long> settled, Set<Prepayments.Named> ahead) {}

    private OutsideSeen look(OutsideReads.On on, OutsideRow row, OutsideReads.Read read, Above above) {
        Vendors.Called vendor = read.vendors().get(row.vendor().strip().toLowerCase(Locale.ROOT));
        VendorId of = vendor == null ? null : vendor.id();
        String payee = vendor == null ? "" : vendor.name();
        Money amount = OutsideReads.amount(row, on.account().currency()).orElse(null);
        try {
            String number = OutsideReads.kept(row, read.series());
            mustBeFree(number, read, above.numbers());
            LocalDate paidOn = OutsideDay.of(row.paidOn(), on.today());
            LocalDate ledgerDate = ledgerDate(paidOn, on, read);
            if (vendor == null) {
                throw Refusal.invalidField(
                        "no-vendor",
                        "vendor",
                        row.vendor().isBlank()
                                ? "Say whom it was paid to."
                                : "No vendor, or more than one, is called “"
                                        + row.vendor().strip() + "”. Type its number, or choose it.");
            }
            Money paid = Money.typed(row.amount(), on.account().currency(), "amount");
            if (!paid.isPositive()) {
                throw Refusal.invalidField("outside-amount", "amount", "Something above zero was paid.");
            }
            List<ClaimLine> lines = lines(row, number, vendor, paid, paidOn, ledgerDate, read, above);
            TypedBatches.Paid claim = new TypedBatches.Paid(
                    vendor.id(), read.remitTos().get(vendor.id().value()), lines);
            return new OutsideSeen(
                    row, number, ledgerDate, of, payee, amount, claim, says(number, paidOn, ledgerDate, read), null);
        } catch (Refusal problem) {
            return new OutsideSeen(row, row.number(), row.paidOn(), of, payee, amount, null, "", problem);
        }
    }

    private static void mustBeFree(String number, OutsideReads.Read read, Set<String> before) {
        String where = read.used().get(number);
        if (!before.add(number)) {
            where = "in a row above";
        }
        NumberSeries of = read.series();
        if (where == null && of != null) {
            NumberState state = read.known().get(OutsideNumber.ofCheck(number, of.range()));
            boolean free = state == null || state == NumberState.UNACCOUNTED;
            where = free ? null : "and is " + state.words();
            if (where == null && state == null && of.stock().isPrinted()) {
                long asked = OutsideNumber.ofCheck(number, of.range());
                // the same rule that posting applies
                Tray.confirm(of.nextNumber(), Math.max(asked, of.nextNumber()), "passed over");
            }
        }
        if (where != null) {
            throw Refusal.invalidField(
                    "number-used",
                    "number",
                    "Number " + number + " is used already, " + where + ". A number is there once: look at it again.");
        }
    }

    private static LocalDate ledgerDate(LocalDate paidOn, OutsideReads.On on, OutsideReads.Read read) {
        Period own = read.periods().get(YearMonth.from(paidOn));
        if (own != null && own.takesNew(on.roles())) {
            return paidOn;
        }
        Periods.mustTakeNew(on.roles(), read.periods(), on.today());
        return on.today();
    }

    private static String says(String number, LocalDate paidOn, LocalDate ledgerDate, OutsideReads.Read read) {
        List<String> says = new ArrayList<>();
        if (!ledgerDate.equals(paidOn)) {
            YearMonth month = YearMonth.from(paidOn);
            Period own = read.periods().get(month);
            says.add("in the ledger on " + Dates.inWords(ledgerDate) + ", because " + new Period(month, false).inWords()
                    + " is " + (own == null ? "not opened" : own.stand()));
        }
        NumberSeries of = read.series();
        if (of != null && of.stock().isPrinted()) {
            long asked = OutsideNumber.ofCheck(number, of.range());
            if (read.known().get(asked) == NumberState.UNACCOUNTED) {
                says.add("found again among the unaccounted numbers");
            } else if (asked > of.nextNumber()) {
                says.add(
                        asked - of.nextNumber() == 1
                                ? of.nextNumber() + " becomes unaccounted"
                                : of.nextNumber() + " to " + (asked - 1) + " become unaccounted");
            }
        }
        return String.join("; ", says);
    }

    private List<ClaimLine> lines(
            OutsideRow row,
            String number,
            Vendors.Called vendor,
            Money paid,
            LocalDate paidOn,
            LocalDate ledgerDate,
            OutsideReads.Read read,
            Above above) {
        Said said = Said.read(row.said(), read.lines().accounts()::containsKey);
        if (said instanceof Said.Accounts direct) {
            return List.of(TypedLines.direct(direct, number, paid, ledgerDate, read.lines()));
        }
        if (said instanceof Said.Ahead ahead) {
            return List.of(TypedLines.ahead(ahead, vendor.id(), paid, read.lines(), above.ahead()));
        }
        List<OpenInvoice> wanted = said instanceof Said.Invoices named
                ? named.references().stream()
                        .map(reference -> named(reference, vendor, read))
                        .toList()
                : List.of(OutsideLines.toldBy(paid, fitting(vendor, read, above.settled()), paidOn, read.graceDays()));
        Set<Long> twice = new HashSet<>(above.settled());
        for (OpenInvoice invoice : wanted) {
            if (!invoice.open().currency().equals(paid.currency())) {
                throw said(invoice.reference() + " is owed in " + invoice.open().currency() + ", and this was paid in "
                        + paid.currency() + ". Record it among the payments of an account of that currency.");
            }
            mustBeFree(invoice, ledgerDate, read);
            if (!twice.add(invoice.id().value())) {
                throw said(invoice.reference()
                        + " stands in a row above already. One payment of it is recorded at a time.");
            }
        }
        List<ClaimLine> lines = OutsideLines.settling(paid, wanted, paidOn, read.graceDays());
        above.settled().addAll(twice);
        return lines;
    }

    private static List<OpenInvoice> fitting(Vendors.Called vendor, OutsideReads.Read read, Set<Long> settled) {
        return read.fitting().stream()
                .filter(one -> one.vendor().equals(vendor.id()))
                .map(OpenItems.OwedTo::invoice)
                .filter(one -> !settled.contains(one.id().value())
                        && !read.reserving().containsKey(one.id().value()))
                .toList();
    }

    private static OpenInvoice named(String reference, Vendors.Called vendor, OutsideReads.Read read) {
        return read.lines().owed().stream()
                .filter(one -> one.vendor().equals(vendor.id()))
                .map(OpenItems.OwedTo::invoice)
                .filter(one -> one.reference().equalsIgnoreCase(reference))
                .findFirst()
                .orElseThrow(() -> said(vendor.name() + " has no open invoice " + reference
                        + ". Look at its reference again, or enter the invoice first."));
    }

    private static void mustBeFree(OpenInvoice invoice, LocalDate ledgerDate, OutsideReads.Read read) {
        String batch = read.reserving().get(invoice.id().value());
        if (batch != null) {
            throw said(invoice.reference() + " stands in the batch “" + batch
                    + "”, which would pay it again. Take it out there first.");
        }
        if (!invoice.isOpenOn(ledgerDate)) {
            throw said(invoice.reference() + " is not in the ledger, or not open, on " + Dates.inWords(ledgerDate)
                    + ", so it cannot be paid then.");
        }
    }

    private static Refusal said(String sentence) {
        return Refusal.invalidField("outside-said", "said", sentence);
    }
}
