package leveltally.server.demo;

import java.time.Instant;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.Currency;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.checks.NumberRange;
import leveltally.core.checks.Stock;
import leveltally.core.company.Company;
import leveltally.core.ledger.AccountFacts;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountKind;
import leveltally.core.ledger.AccountRole;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.ledger.JournalLine;
import leveltally.core.ledger.NewBankAccount;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.VendorId;
import leveltally.server.bankfiles.BankFiles;
import leveltally.server.checks.SeriesSetup;
import leveltally.server.company.Companies;
import leveltally.server.ledger.AccountRoles;
import leveltally.server.ledger.Accounts;
import leveltally.server.ledger.BankAccountChanges;
import leveltally.server.ledger.BankAccountSetup;
import leveltally.server.ledger.EntryKind;
import leveltally.server.ledger.EntryLinks;
import leveltally.server.ledger.Ledger;
import leveltally.server.ledger.Periods;
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
    private final Periods periods;
    private final Accounts accounts;
    private final AccountRoles roles;
    private final BankAccountSetup setup;
    private final BankAccountChanges changesOfAccounts;
    private final Companies companies;
    private final SeriesSetup series;
    private final Vendors vendors;
    private final VendorChanges changes;
    private final ChangeViews waiting;
    private final BankFiles files;

    DemoCompany(
            People people,
            Ledger ledger,
            Periods periods,
            Accounts accounts,
            AccountRoles roles,
            BankAccountSetup setup,
            BankAccountChanges changesOfAccounts,
            Companies companies,
            SeriesSetup series,
            Vendors vendors,
            VendorChanges changes,
            ChangeViews waiting,
            BankFiles files) {
        this.people = people;
        this.ledger = ledger;
        this.periods = periods;
        this.accounts = accounts;
        this.roles = roles;
        this.setup = setup;
        this.changesOfAccounts = changesOfAccounts;
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
            periods.open(cast.on(month.atDay(1), "joss"), month);
        }
        AccountId cash = accounts.add(by, new AccountFacts("1010", "Cash, Operations", AccountKind.CASH));
        AccountId cashWorks = accounts.add(by, new AccountFacts("1020", "Cash, Harbour Works", AccountKind.CASH));
        AccountId cashEur = accounts.add(by, new AccountFacts("1030", "Cash, Continental", AccountKind.CASH));
        AccountId payables = accounts.add(by, new AccountFacts("2000", "Payables", AccountKind.PAYABLES));
        AccountId payablesEur = accounts.add(by, new AccountFacts("2010", "Payables, euro", AccountKind.PAYABLES));
        AccountId equity = accounts.add(by, new AccountFacts("3000", "Opening balances", AccountKind.EQUITY));
        AccountId discounts = accounts.add(by, new AccountFacts("4900", "Discounts taken", AccountKind.INCOME));
        AccountId prepayments = accounts.add(by, new AccountFacts("1400", "Prepayments to vendors", AccountKind.ASSET));
        AccountId recovered = accounts.add(by, new AccountFacts("4950", "Recovered payments", AccountKind.INCOME));
        roles.give(by, AccountRole.PAYABLES, USD, payables);
        roles.give(by, AccountRole.PAYABLES, EUR, payablesEur);
        roles.give(by, AccountRole.DISCOUNTS_TAKEN, null, discounts);
        roles.give(by, AccountRole.PREPAYMENTS, null, prepayments);
        roles.give(by, AccountRole.RECOVERED_PAYMENTS, null, recovered);
        Map<String, AccountId> expenses = new LinkedHashMap<>();
        int code = 5100;
        for (String group :
                List.of("Fuel", "Chandlery", "Yard & engine", "Galley", "Harbour dues", "Office", "Crew services")) {
            expenses.put(group, accounts.add(by, new AccountFacts(String.valueOf(code), group, AccountKind.EXPENSE)));
            code += 100;
        }
        companies.set(
                by,
                new Company("Marrow Bay Ferries", List.of("4 Ropewalk Quay", "Skerrow"), 0, 180),
                Companies.NOT_YET);
        long layout = files.addLayout(DemoLayout.skerrowTrust());
        BankAccountId operations = account(by, "Operations", "Skerrow Trust", USD, "990044105", "004417720931", cash);
        BankAccountId works =
                account(by, "Harbour Works", "Skerrow Trust", USD, "990044105", "004417724508", cashWorks);
        BankAccountId continental =
                account(by, "Continental", "Bank of Eider", EUR, "990073053", "770031182264", cashEur);
        setup.positivePay(by, operations, layout, DemoLayout.skerrowTrust().name());
        changesOfAccounts.keepFloor(cast.on(FIRST.atDay(1), "ruth"), operations, "250,000.00");
        changesOfAccounts.keepFloor(cast.on(FIRST.atDay(1), "ruth"), works, "50,000.00");
        checks(by, operations, Stock.BLANK, 41200);
        checks(by, works, Stock.NUMBERED, 7300);
        setup.addWay(
                by,
                continental,
                new BankAccountSetup.WantedWay("Credit transfers", PaymentMethod.CREDIT_TRANSFER, false));
        open(by, cash, equity, Money.ofMinor(195_000_000, USD));
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

    private BankAccountId account(
            Actor by, String name, String bank, Currency currency, String routing, String number, AccountId cash) {
        return setup.open(by, new NewBankAccount(name, bank, currency, new RoutingNumber(routing), number, cash));
    }

    private void checks(Actor by, BankAccountId account, Stock stock, long first) {
        series.add(
                by,
                account,
                "Checks",
                new SeriesSetup.Wanted(
                        new NumberRange("", first, null),
                        stock,
                        "C########C|KC",
                        "dollars",
                        "Not valid after 180 days"));
    }

    private void open(Actor by, AccountId cash, AccountId equity, Money amount) {
        periods.shareOpen(FIRST.atDay(1));
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
