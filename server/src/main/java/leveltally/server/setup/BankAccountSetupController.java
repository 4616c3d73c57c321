package leveltally.server.setup;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.checks.NumberRange;
import leveltally.core.checks.SeriesId;
import leveltally.core.checks.Stock;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.HolidayList;
import leveltally.core.ledger.NewBankAccount;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.money.Currencies;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.VendorId;
import leveltally.server.bankfiles.PositivePay;
import leveltally.server.checks.SeriesCorrections;
import leveltally.server.checks.SeriesSetup;
import leveltally.server.frame.Needs;
import leveltally.server.ledger.BankAccountChanges;
import leveltally.server.ledger.BankAccountSetup;
import leveltally.server.ledger.BankHolidays;
import leveltally.server.ledger.WayToPay;
import leveltally.server.vendors.Vendors;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Sets bank accounts up, with their series, ways to pay and holidays. */
@RestController
@RequestMapping("/api")
@Needs(Deed.READ)
class BankAccountSetupController {
    private final AccountPages pages;
    private final BankAccountSetup setup;
    private final BankAccountChanges changes;
    private final BankHolidays holidays;
    private final SeriesSetup series;
    private final SeriesCorrections corrections;
    private final PositivePay positivePay;
    private final AccountClosing closing;
    private final Vendors vendors;

    BankAccountSetupController(
            AccountPages pages,
            BankAccountSetup setup,
            BankAccountChanges changes,
            BankHolidays holidays,
            SeriesSetup series,
            SeriesCorrections corrections,
            PositivePay positivePay,
            AccountClosing closing,
            Vendors vendors) {
        this.pages = pages;
        this.setup = setup;
        this.changes = changes;
        this.holidays = holidays;
        this.series = series;
        this.corrections = corrections;
        this.positivePay = positivePay;
        this.closing = closing;
        this.vendors = vendors;
    }

    record OpenedBankAccount(
            @NotNull @Size(max = 200) String name,
            @NotNull @Size(max = 200) String bankName,
            @NotNull @Size(max = 10) String currency,
            @NotNull @Size(max = 40) String routing,
            @NotNull @Size(max = 60) String accountNumber,
            long cash) {}

    record BankAccountChanged(
            @NotNull @Size(max = 200) String name,
            @NotNull @Size(max = 200) String bankName,
            @NotNull @Size(max = 40) String floor,
            @NotNull @Size(max = 40) String smallest,
            @Nullable LocalDate thisRun,
            @Nullable LocalDate nextRun,
            long version) {}

    /** A way to pay by check with its series. */
    record SeriesWanted(
            @NotNull @Size(max = 200) String wayName,
            @NotNull @Size(max = 40) String prefix,
            long first,
            @Nullable Long last,
            @NotNull Stock stock,
            @NotNull @Size(max = 100) String micr,
            @NotNull @Size(max = 100) String currencyWord,
            @NotNull @Size(max = 200) String validity) {}

    record WayWanted(
            @NotNull @Size(max = 200) String wayName,
            @NotNull PaymentMethod method,
            @Nullable Long owed,
            @Nullable @Size(max = 120) String issuer,
            @Nullable Boolean fromList) {}

    record NextNumberWanted(
            long next, @NotNull @Size(max = 400) String reason) {}

    record HolidaysWanted(@NotNull @Size(max = 50_000) String text) {}

    record ReprintsWanted(boolean allowed) {}

    record HolidayGone(@NotNull LocalDate day) {}

    /** @param from the day from which files are made in it; null for today */
    record PositivePayWanted(long layout, @Nullable LocalDate from) {}

    record DecisionHourWanted(@NotNull @Size(max = 10) String hour) {}

    record ClosingReason(@NotNull @Size(max = 300) String reason) {}

    @GetMapping("/bank-accounts/{id}")
    AccountPage account(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        return pages.of(by, new BankAccountId(id));
    }

    @GetMapping("/bank-file-layouts")
    List<PositivePay.LayoutChoice> layouts(Actor by) {
        by.mayDo(Deed.READ);
        return positivePay.layouts();
    }

    @PostMapping("/bank-accounts")
    @Needs(Deed.SET_BANK_ACCOUNT)
    long open(Actor by, @Valid @RequestBody OpenedBankAccount wanted) {
        return setup.open(
                        by,
                        new NewBankAccount(
                                wanted.name(),
                                wanted.bankName(),
                                Currencies.typed(wanted.currency(), "currency"),
                                new RoutingNumber(wanted.routing()),
                                wanted.accountNumber(),
                                new AccountId(wanted.cash())))
                .value();
    }

    @PostMapping("/bank-accounts/{id}")
    @Needs(Deed.CHANGE_BANK_ACCOUNT)
    void change(Actor by, @PathVariable long id, @Valid @RequestBody BankAccountChanged wanted) {
        changes.change(
                by,
                new BankAccountId(id),
                new BankAccountChanges.Wanted(
                        wanted.name(),
                        wanted.bankName(),
                        wanted.floor(),
                        wanted.smallest(),
                        wanted.thisRun(),
                        wanted.nextRun()),
                wanted.version());
    }

    @PostMapping("/bank-accounts/{id}/series")
    @Needs(Deed.SET_BANK_ACCOUNT)
    void addSeries(Actor by, @PathVariable long id, @Valid @RequestBody SeriesWanted wanted) {
        series.add(
                by,
                new BankAccountId(id),
                wanted.wayName(),
                new SeriesSetup.Wanted(
                        new NumberRange(wanted.prefix(), wanted.first(), wanted.last()),
                        wanted.stock(),
                        wanted.micr(),
                        wanted.currencyWord(),
                        wanted.validity()));
    }

    /** A way to pay without check numbers; a company card names its issuer and the account of what is owed to it. */
    @PostMapping("/bank-accounts/{id}/ways")
    @Needs(Deed.SET_BANK_ACCOUNT)
    void addWay(Actor by, @PathVariable long id, @Valid @RequestBody WayWanted wanted) {
        if (wanted.method() == PaymentMethod.CHECK) {
            throw Refusal.invalidField("way-of-checks", "method", "Checks come with a series of numbers. Add that.");
        }
        if (wanted.method() == PaymentMethod.CARD) {
            Long owed = wanted.owed();
            setup.addCard(
                    by,
                    new BankAccountId(id),
                    wanted.wayName(),
                    new WayToPay.Card(new AccountId(owed == null ? 0 : owed), issuer(wanted.issuer())));
            return;
        }
        setup.addWay(
                by,
                new BankAccountId(id),
                new BankAccountSetup.WantedWay(
                        wanted.wayName(),
                        wanted.method(),
                        !wanted.method().isElectronic() && !Boolean.TRUE.equals(wanted.fromList())));
    }

    private VendorId issuer(@Nullable String typed) {
        String text = typed == null ? "" : typed.strip().toLowerCase(Locale.ROOT);
        Vendors.Called vendor = vendors.called(Set.of(text)).get(text);
        if (vendor == null) {
            throw Refusal.invalidField(
                    "no-issuer",
                    "issuer",
                    "Type the number or the whole name of the card's issuer, who is a vendor: its statements are its invoices.");
        }
        return vendor.id();
    }

    @PostMapping("/bank-accounts/{id}/holidays")
    @Needs(Deed.SET_BANK_ACCOUNT)
    void addHolidays(Actor by, @PathVariable long id, @Valid @RequestBody HolidaysWanted wanted) {
        holidays.add(by, new BankAccountId(id), HolidayList.read(wanted.text()));
    }

    @PostMapping("/bank-accounts/{id}/holidays/remove")
    @Needs(Deed.SET_BANK_ACCOUNT)
    void removeHoliday(Actor by, @PathVariable long id, @Valid @RequestBody HolidayGone wanted) {
        holidays.remove(by, new BankAccountId(id), wanted.day());
    }

    @PostMapping("/bank-accounts/{id}/positive-pay")
    @Needs(Deed.SET_BANK_ACCOUNT)
    void beginPositivePay(Actor by, @PathVariable long id, @Valid @RequestBody PositivePayWanted wanted) {
        positivePay.begin(by, new BankAccountId(id), wanted.layout(), wanted.from());
    }

    @PostMapping("/bank-accounts/{id}/positive-pay/end")
    @Needs(Deed.SET_BANK_ACCOUNT)
    void endPositivePay(Actor by, @PathVariable long id) {
        positivePay.end(by, new BankAccountId(id));
    }

    @PostMapping("/bank-accounts/{id}/decision-hour")
    @Needs(Deed.SET_BANK_ACCOUNT)
    void decideBefore(Actor by, @PathVariable long id, @Valid @RequestBody DecisionHourWanted wanted) {
        setup.decideBefore(by, new BankAccountId(id), wanted.hour());
    }

    @PostMapping("/bank-accounts/{id}/close")
    @Needs(Deed.SET_BANK_ACCOUNT)
    void close(Actor by, @PathVariable long id, @Valid @RequestBody ClosingReason wanted) {
        closing.close(by, new BankAccountId(id), wanted.reason());
    }

    /** Whether damaged sheets may be printed again on their own numbers. */
    @PostMapping("/series/{id}/reprints")
    @Needs(Deed.SET_BANK_ACCOUNT)
    void reprints(Actor by, @PathVariable long id, @Valid @RequestBody ReprintsWanted wanted) {
        series.allowReprint(by, new SeriesId(id), wanted.allowed());
    }

    @PostMapping("/series/{id}/next-number")
    @Needs(Deed.CORRECT_NUMBERS)
    void propose(Actor by, @PathVariable long id, @Valid @RequestBody NextNumberWanted wanted) {
        corrections.propose(by, new SeriesId(id), wanted.next(), wanted.reason());
    }

    @PostMapping("/series/{id}/next-number/confirm")
    @Needs(Deed.CORRECT_NUMBERS)
    void confirm(Actor by, @PathVariable long id) {
        corrections.confirm(by, new SeriesId(id));
    }

    @PostMapping("/series/{id}/next-number/refuse")
    @Needs(Deed.CORRECT_NUMBERS)
    void refuse(Actor by, @PathVariable long id) {
        corrections.refuse(by, new SeriesId(id));
    }
}
