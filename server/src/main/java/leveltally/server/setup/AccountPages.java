package leveltally.server.setup;

import java.util.Arrays;
import java.util.Currency;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import leveltally.core.checks.Stock;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.bankfiles.PositivePay;
import leveltally.server.checks.NumberSeries;
import leveltally.server.checks.Series;
import leveltally.server.checks.SeriesCorrections;
import leveltally.server.ledger.Accounts;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.BankHolidays;
import leveltally.server.ledger.WayToPay;
import leveltally.server.vendors.Vendors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Puts together what is shown of a bank account. */
@Component
class AccountPages {
    private static final int DIGITS_SHOWN = 4;

    private final BankAccounts accounts;
    private final BankHolidays holidays;
    private final Accounts ledger;
    private final Series series;
    private final SeriesCorrections corrections;
    private final PositivePay positivePay;
    private final AccountClosing closing;
    private final Vendors vendors;

    AccountPages(
            BankAccounts accounts,
            BankHolidays holidays,
            Accounts ledger,
            Series series,
            SeriesCorrections corrections,
            PositivePay positivePay,
            AccountClosing closing,
            Vendors vendors) {
        this.accounts = accounts;
        this.holidays = holidays;
        this.ledger = ledger;
        this.series = series;
        this.corrections = corrections;
        this.positivePay = positivePay;
        this.closing = closing;
        this.vendors = vendors;
    }

    @Transactional(readOnly = true)
    AccountPage of(Actor by, BankAccountId id) {
        BankAccount account = accounts.get(id);
        Map<WayId, NumberSeries> numbers = account.ways().isEmpty()
                ? Map.of()
                : series.all(account.ways().stream().map(WayToPay::id).toList()).stream()
                        .collect(Collectors.toMap(NumberSeries::way, Function.identity()));
        String number = account.accountNumber();
        return new AccountPage(
                id.value(),
                account.name(),
                account.bankName(),
                account.currency().getCurrencyCode(),
                account.routingNumber(),
                "…" + number.substring(Math.max(0, number.length() - DIGITS_SHOWN)),
                ledger.names().getOrDefault(account.cash().value(), ""),
                account.floor().toString(),
                account.smallest().toString(),
                account.thisRun(),
                account.nextRun(),
                positivePay.inWords(account, by.today()),
                accounts.decisionHour(id).map(String::valueOf).orElse(""),
                account.closedOn(),
                account.ways().stream()
                        .map(way -> new AccountPage.AccountWay(
                                way.id().value(),
                                way.name(),
                                way.method().words(),
                                way.recordedOnly(),
                                way.method().isElectronic() && !way.recordedOnly(),
                                owed(way.card()),
                                numbers(by, numbers.get(way.id()), account.currency())))
                        .toList(),
                Arrays.stream(PaymentMethod.values())
                        .filter(method -> method != PaymentMethod.CHECK)
                        .map(method -> new AccountPage.OtherWay(method.name(), method.words()))
                        .toList(),
                holidays.from(id, by.today().withDayOfYear(1)).stream()
                        .map(day -> new AccountPage.BankHoliday(day.day(), day.name()))
                        .toList(),
                closing.stillUsed(id).inWords(),
                accounts.version(id),
                Deed.CHANGE_BANK_ACCOUNT.allowedTo(by.roles()),
                Deed.SET_BANK_ACCOUNT.allowedTo(by.roles()),
                Deed.CORRECT_NUMBERS.allowedTo(by.roles()),
                Deed.SET_SIGNING.allowedTo(by.roles()));
    }

    private String owed(WayToPay.@Nullable Card card) {
        return card == null
                ? ""
                : vendors.get(card.issuer()).name() + " on "
                        + ledger.names().getOrDefault(card.owed().value(), "");
    }

    private AccountPage.@Nullable AccountSeries numbers(Actor by, @Nullable NumberSeries of, Currency currency) {
        if (of == null) {
            return null;
        }
        return new AccountPage.AccountSeries(
                of.id().value(),
                of.range().prefix(),
                of.range().first(),
                of.nextNumber(),
                of.range().last(),
                of.stock().words(),
                of.micr().written(),
                of.currencyWord(),
                of.validity(),
                of.stock().isPrinted(),
                of.stock() == Stock.BLANK,
                of.sameNumberReprint(),
                AccountPage.SigningView.of(of.signing(), currency),
                corrections
                        .waiting(of.id())
                        .map(one -> new AccountPage.WaitingNumber(
                                one.to(),
                                one.reason(),
                                one.who(),
                                one.proposedBy() == by.person().value()))
                        .orElse(null));
    }
}
