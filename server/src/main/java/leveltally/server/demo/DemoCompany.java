package leveltally.server.demo;

import java.time.Instant;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.Currency;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.checks.SeriesId;
import leveltally.core.checks.Stock;
import leveltally.core.company.Company;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.ledger.JournalLine;
import leveltally.core.ledger.WayId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import leveltally.core.printing.MicrPattern;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.VendorId;
import leveltally.server.bankfiles.BankFiles;
import leveltally.server.checks.NumberSeries;
import leveltally.server.checks.Series;
import leveltally.server.company.Companies;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.EntryKind;
import leveltally.server.ledger.EntryLinks;
import leveltally.server.ledger.Ledger;
import leveltally.server.people.People;
import leveltally.server.vendors.ChangeViews;
import leveltally.server.vendors.ToldChange;
import leveltally.server.vendors.Vendor;
import leveltally.server.vendors.VendorChanges;
import leveltally.server.vendors.Vendors;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Sets the made-up company up: people, accounts, periods, bank accounts, vendors. */
@Component
class DemoCompany {
    static final Currency USD = Currency.getInstance("USD");
    static final Currency EUR = Currency.getInstance("EUR");
    static final YearMonth FIRST = YearMonth.of(2025, 11);
    static final YearMonth LAST = YearMonth.of(2026, 12);

    private final People people;
    private final Ledger ledger;
    private final BankAccounts bankAccounts;
    private final Companies companies;
    private final Series series;
    private final Vendors vendors;
    private final VendorChanges changes;
    private final ChangeViews waiting;
    private final BankFiles files;

    DemoCompany(
            People people,
            Ledger ledger,
            BankAccounts bankAccounts,
            Companies companies,
            Series series,
            Vendors vendors,
            VendorChanges changes,
            ChangeViews waiting,
            BankFiles files) {
        this.people = people;
        this.ledger = ledger;
        this.bankAccounts = bankAccounts;
        this.companies = companies;
        this.series = series;
        this.vendors = vendors;
        this.changes = changes;
        this.waiting = waiting;
        this.files = files;
    }

    /** The people as actors on a given business date. */
    record Cast(Map<String, Actor> people) {
        Actor on(LocalDate date, String signIn) {
            Actor who = people.get(signIn);
            return new Actor(who.person(), who.name(), who.roles(), date, Instant.now(), "demo");
        }
    }

    /** What the story needs to know of the company. */
    record Stage(
            Cast cast,
            BankAccountId operations,
            BankAccountId works,
            AccountId payables,
            AccountId payablesEur,
            Map<String, AccountId> expenses,
            Map<String, VendorId> vendors) {}

    @Transactional
    Stage build(String password) {
        Cast cast = cast(password);
        Actor by = cast.on(FIRST.atDay(1), "joss");
        for (YearMonth month = FIRST; !month.isAfter(LAST); month = month.plusMonths(1)) {
            ledger.addPeriod(month);
        }
        AccountId cash = ledger.addAccount("1010", "Cash, Operations", "CASH");
        AccountId cashWorks = ledger.addAccount("1020", "Cash, Harbour Works", "CASH");
        AccountId cashEur = ledger.addAccount("1030", "Cash, Continental", "CASH");
        AccountId payables = ledger.addAccount("2000", "Payables", "PAYABLES");
        AccountId payablesEur = ledger.addAccount("2010", "Payables, euro", "PAYABLES");
        AccountId equity = ledger.addAccount("3000", "Opening balances", "EQUITY");
        AccountId discounts = ledger.addAccount("4900", "Discounts taken", "INCOME");
        Map<String, AccountId> expenses = new LinkedHashMap<>();
        int code = 5100;
        for (String group :
                List.of("Fuel", "Chandlery", "Yard & engine", "Galley", "Harbour dues", "Office", "Crew services")) {
            expenses.put(group, ledger.addAccount(String.valueOf(code), group, "EXPENSE"));
            code += 100;
        }
        companies.set(
                by,
                new Company("Marrow Bay Ferries", List.of("4 Ropewalk Quay", "Skerrow"), 0, 180),
                Companies.NOT_YET);
        long layout = files.addLayout(DemoLayout.skerrowTrust());
        BankAccountId operations = bankAccounts.add(new BankAccount(
                new BankAccountId(0),
                "Operations",
                "Skerrow Trust",
                USD,
                "990044105",
                "004417720931",
                cash,
                discounts,
                true,
                layout,
                Money.ofMinor(25_000_000, USD),
                null,
                null,
                List.of()));
        BankAccountId works = bankAccounts.add(new BankAccount(
                new BankAccountId(0),
                "Harbour Works",
                "Skerrow Trust",
                USD,
                "990044105",
                "004417724508",
                cashWorks,
                discounts,
                false,
                null,
                Money.ofMinor(5_000_000, USD),
                null,
                null,
                List.of()));
        BankAccountId continental = bankAccounts.add(new BankAccount(
                new BankAccountId(0),
                "Continental",
                "Bank of Eider",
                EUR,
                "990073053",
                "770031182264",
                cashEur,
                discounts,
                false,
                null,
                Money.zero(EUR),
                null,
                null,
                List.of()));
        checks(operations, Stock.BLANK, 41200);
        checks(works, Stock.NUMBERED, 7300);
        bankAccounts.addWay(continental, "Credit transfers", PaymentMethod.CREDIT_TRANSFER);
        open(by, cash, equity, Money.ofMinor(172_000_000, USD));
        open(by, cashWorks, equity, Money.ofMinor(61_000_000, USD));
        open(by, cashEur, equity, Money.ofMinor(24_000_000, EUR));
        return new Stage(
                cast,
                operations,
                works,
                payables,
                payablesEur,
                expenses,
                vendors(cast.on(FIRST.atDay(1), "ines"), cast.on(FIRST.atDay(1), "ruth")));
    }

    private Cast cast(String password) {
        Map<String, Actor> cast = new LinkedHashMap<>();
        add(cast, "ines", "Ines Okafor", password, Role.CLERK);
        add(cast, "tomas", "Tomas Brandt", password, Role.CLERK);
        add(cast, "maren", "Maren Lindqvist", password, Role.APPROVER);
        add(cast, "aldo", "Aldo Ferreira", password, Role.APPROVER);
        add(cast, "ruth", "Ruth Castellane", password, Role.CONTROLLER);
        add(cast, "priya", "Priya Nair", password, Role.AUDITOR);
        add(cast, "joss", "Joss Whitlock", password, Role.ADMINISTRATOR);
        return new Cast(cast);
    }

    private void add(Map<String, Actor> cast, String signIn, String name, String password, Role role) {
        PersonId id = people.add(signIn, name, signIn + "@marrowbay.example", password, Set.of(role), true);
        cast.put(signIn, new Actor(id, name, Set.of(role), FIRST.atDay(1), Instant.now(), "demo"));
    }

    private void checks(BankAccountId account, Stock stock, long first) {
        WayId way = bankAccounts.addWay(account, "Checks", PaymentMethod.CHECK);
        series.add(new NumberSeries(
                new SeriesId(0),
                way,
                "",
                stock,
                first,
                first,
                MicrPattern.read("C########C|KC"),
                "dollars",
                "Not valid after 180 days"));
    }

    private void open(Actor by, AccountId cash, AccountId equity, Money amount) {
        ledger.shareOpenPeriod(FIRST.atDay(1));
        var lines = List.of(JournalLine.debit(cash, amount), JournalLine.credit(equity, amount));
        ledger.write(
                by, EntryKind.OPENING, new JournalEntry(FIRST.atDay(1), "Opening balance", lines), EntryLinks.NONE);
    }

    private Map<String, VendorId> vendors(Actor by, Actor second) {
        Map<String, VendorId> ids = new LinkedHashMap<>();
        int number = 1001;
        for (DemoVendors.Seed seed : DemoVendors.ALL) {
            Vendor vendor = new Vendor(
                    new VendorId(0),
                    "V" + number++,
                    seed.name(),
                    seed.group(),
                    seed.priority(),
                    seed.currency().equals("EUR") ? PaymentMethod.CREDIT_TRANSFER : PaymentMethod.CHECK,
                    Currency.getInstance(seed.currency()),
                    seed.terms(),
                    null,
                    seed.name().equals(DemoVendors.ONE_TIME));
            String postal = "4" + number;
            RemitTo remitTo = new RemitTo(
                    seed.name(), List.of((number * 7 % 90 + 1) + " Slipway Road", seed.town() + " " + postal));
            BankDetails bank = seed.currency().equals("EUR") && !seed.name().equals(DemoVendors.NO_BANK_DETAILS)
                    ? iban(number)
                    : seed.name().equals(DemoVendors.NEW_BANK_DETAILS)
                            ? BankDetails.typed("990073053", "77003118" + number)
                            : null;
            VendorId id = vendors.add(by, vendor, remitTo, postal, bank);
            if (bank != null) {
                // the second person types the account again
                for (ToldChange one : waiting.waiting()) {
                    if (one.vendor() == id.value()) {
                        changes.confirm(second, one.id(), bank);
                    }
                }
            }
            if (DemoVendors.TWO_ADDRESSES.contains(seed.name())) {
                changes.propose(
                        by,
                        id,
                        new VendorChanges.Wanted(
                                null,
                                seed.name(),
                                List.of("Accounts Office, Box " + number % 97, "Port Gorse 770" + number % 10),
                                "770" + number % 10,
                                false,
                                null,
                                "their letter of last week"));
            }
            ids.put(seed.name(), id);
        }
        changes.confirmAll(
                second, waiting.waiting().stream().map(ToldChange::id).toList());
        return ids;
    }

    /** A made-up account in the country code no country has, with check digits that fit. */
    private static BankDetails iban(int number) {
        String account = "0000990073" + String.format("%06d", number);
        for (int digits = 2; digits < 99; digits++) {
            try {
                return BankDetails.typed("", "ZZ" + String.format("%02d", digits) + account);
            } catch (leveltally.core.Refusal doNotFit) {
                continue;
            }
        }
        throw new IllegalStateException("no check digits fit " + account);
    }
}
