package leveltally.server.direct;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.batches.ClaimLine;
import leveltally.core.batches.Said;
import leveltally.core.ledger.LedgerAccount;
import leveltally.core.money.Money;
import leveltally.core.selection.LeftOutReason;
import leveltally.core.vendors.Reach;
import leveltally.core.vendors.TwoPeople;
import leveltally.core.vendors.VendorId;
import leveltally.server.batches.TypedBatches;
import leveltally.server.batches.TypedLines;
import leveltally.server.company.Companies;
import leveltally.server.invoices.Prepayments;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.WayToPay;
import leveltally.server.vendors.Place;
import leveltally.server.vendors.Vendors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Understands typed rows: who is paid, what for, and whether this way reaches them; as many statements for many rows as for one. */
@Component
class DirectLook {
    private static final int MOST_REFERENCE = 40;

    private final Vendors vendors;
    private final TypedLines lines;
    private final Schedules schedules;
    private final Companies companies;

    DirectLook(Vendors vendors, TypedLines lines, Schedules schedules, Companies companies) {
        this.vendors = vendors;
        this.lines = lines;
        this.schedules = schedules;
        this.companies = companies;
    }

    /** Where the rows stand: the account, its way, the day, and the batch they stand in already; 0 for none. */
    record On(BankAccount account, WayToPay way, LocalDate checkDate, long batch) {}

    private record Read(
            Map<String, Vendors.Called> vendors,
            Map<Long, List<Place>> places,
            TypedLines.Known lines,
            Map<Schedules.Day, String> taken,
            boolean oneTimeByTwo) {}

    /** What the rows above hold. */
    private record Above(Map<String, Integer> alike, Set<Prepayments.Named> ahead, Set<Schedules.Day> days) {}

    List<DirectSeen> look(On on, List<DirectRow> rows) {
        Read read = read(on, rows);
        Above above = new Above(new HashMap<>(), new HashSet<>(), new HashSet<>());
        List<DirectSeen> seen = new ArrayList<>();
        for (DirectRow row : rows) {
            seen.add(look(on, row, seen.size() + 1, read, above));
        }
        return seen;
    }

    private Read read(On on, List<DirectRow> rows) {
        Map<String, Vendors.Called> called =
                vendors.called(rows.stream().map(row -> row.vendor().strip()).collect(Collectors.toSet()));
        Set<VendorId> ids = called.values().stream().map(Vendors.Called::id).collect(Collectors.toSet());
        Map<String, LedgerAccount> codes = lines.accounts();
        Set<String> references = new HashSet<>();
        for (DirectRow row : rows) {
            if (said(row, codes) instanceof Said.Ahead ahead) {
                references.add(ahead.reference());
            }
        }
        return new Read(
                called,
                vendors.placesOf(ids),
                lines.know(codes, on.account().currency(), ids, references, on.batch()),
                schedules.taken(rows, on.batch()),
                companies.company().oneTimeByTwo());
    }

    private static @Nullable Said said(DirectRow row, Map<String, LedgerAccount> codes) {
        try {
            return Said.read(row.said(), codes::containsKey);
        } catch (Refusal unreadable) {
            return null;
        }
    }

    private static DirectSeen look(On on, DirectRow row, int place, Read read, Above above) {
        Vendors.Called vendor = read.vendors().get(row.vendor().strip().toLowerCase(Locale.ROOT));
        VendorId of = vendor == null ? null : vendor.id();
        String payee = vendor == null ? "" : vendor.name();
        Money amount = null;
        try {
            amount = row.amount().isBlank()
                    ? null
                    : Money.typed(row.amount(), on.account().currency(), "amount");
            mustBePayable(vendor, row, on);
            Place to = reached(vendor, on.way(), read);
            if (amount == null || !amount.isPositive()) {
                throw Refusal.invalidField("direct-amount", "amount", "Type what is paid, above zero.");
            }
            mustBeFree(row, read, above);
            ClaimLine line = line(row, vendor.id(), amount, on.checkDate(), read, above);
            return new DirectSeen(
                    row,
                    of,
                    payee,
                    amount,
                    new TypedBatches.Paid(vendor.id(), to.id(), List.of(line)),
                    says(row, place, vendor, to, line, on.way(), read, above),
                    null);
        } catch (Refusal problem) {
            return new DirectSeen(row, of, payee, amount, null, "", problem);
        }
    }

    private static void mustBePayable(Vendors.@Nullable Called vendor, DirectRow row, On on) {
        if (vendor == null) {
            throw Refusal.invalidField(
                    "no-vendor",
                    "vendor",
                    row.vendor().isBlank()
                            ? "Say whom it is paid to."
                            : "No vendor, or more than one, is called “"
                                    + row.vendor().strip()
                                    + "”. Type its number, choose it, or enter it beside this as a payee who is paid once.");
        }
        if (vendor.held() != null) {
            throw Refusal.invalidField(
                    "vendor-held",
                    "vendor",
                    vendor.name() + " is held: " + vendor.held() + ". " + LeftOutReason.HELD_VENDOR.wayOut());
        }
    }

    /** The first of the vendor's addresses that this way reaches. */
    private static Place reached(Vendors.Called vendor, WayToPay way, Read read) {
        List<Place> places = read.places().getOrDefault(vendor.id().value(), List.of());
        for (Place place : places) {
            if (place.reach().missingFor(way.method()).isEmpty()) {
                return place;
            }
        }
        Reach reach =
                places.isEmpty() ? new Reach(false, null, false) : places.get(0).reach();
        LeftOutReason why = LeftOutReason.of(reach.missingFor(way.method()).orElse(Reach.Missing.ADDRESS));
        throw Refusal.invalidField(
                "not-reached",
                "vendor",
                vendor.name() + " cannot be paid by " + way.method().words() + ": " + why.words() + ". "
                        + why.wayOut());
    }

    private static void mustBeFree(DirectRow row, Read read, Above above) {
        Schedules.Day day = Schedules.Day.of(row);
        if (day == null) {
            return;
        }
        String where = read.taken().get(day);
        if (!above.days().add(day)) {
            where = "in a row above";
        }
        if (where != null) {
            throw Refusal.invalidField(
                    "day-taken",
                    "said",
                    "What is due on " + Dates.inWords(day.dueOn()) + " is paid already, " + where
                            + ". Take this row out.");
        }
    }

    private static ClaimLine line(DirectRow row, VendorId vendor, Money paid, LocalDate day, Read read, Above above) {
        Said said = Said.read(row.said(), read.lines().accounts()::containsKey);
        if (said instanceof Said.Ahead ahead) {
            return TypedLines.ahead(ahead, vendor, paid, read.lines(), above.ahead());
        }
        if (said instanceof Said.Accounts direct) {
            return TypedLines.direct(direct, reference(row.reference()), paid, day, read.lines());
        }
        throw Refusal.invalidField(
                "direct-said",
                "said",
                "Name the accounts it is for, such as 5400 or 5600/PIER-2 700.00; 5400 525.00, or say ahead of which invoice"
                        + " it is paid: ahead PO-118. An invoice that is here is paid from Due.");
    }

    private static String reference(String typed) {
        String reference = typed.strip();
        if (reference.isEmpty() || reference.length() > MOST_REFERENCE) {
            throw Refusal.invalidField(
                    "direct-reference",
                    "reference",
                    "Say what the payee shall read, such as the number of its bill, in at most " + MOST_REFERENCE
                            + " characters.");
        }
        return reference;
    }

    private static String says(
            DirectRow row,
            int place,
            Vendors.Called vendor,
            Place to,
            ClaimLine line,
            WayToPay way,
            Read read,
            Above above) {
        List<String> says = new ArrayList<>();
        if (!to.inForce() && TwoPeople.mustAgree(way.method(), to.oneTime(), read.oneTimeByTwo())) {
            says.add("a second person confirms its address before this can be sent");
        }
        Integer same = above.alike()
                .putIfAbsent(
                        vendor.id().value() + " " + line.reference().toLowerCase(Locale.ROOT) + " " + line.gross(),
                        place);
        if (same != null) {
            says.add("the same as row " + same);
        }
        if (!vendor.isPaidBy(way.method())) {
            says.add("as a rule it is paid by " + vendor.rather().words());
        }
        if (!vendor.currency().equals(line.gross().currency().getCurrencyCode())) {
            says.add("as a rule it is paid in " + vendor.currency());
        }
        if (row.dueOn() != null) {
            says.add("due on " + Dates.inWords(row.dueOn()) + " by its schedule");
        }
        return String.join("; ", says);
    }
}
