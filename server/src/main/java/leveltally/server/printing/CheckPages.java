package leveltally.server.printing;

import java.util.List;
import leveltally.core.checks.Stock;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.ledger.WayId;
import leveltally.core.printing.CheckForm;
import leveltally.core.printing.CheckLayout;
import leveltally.core.printing.CheckText;
import leveltally.core.printing.Page;
import leveltally.server.checks.NumberSeries;
import leveltally.server.checks.Series;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.Company;
import org.springframework.stereotype.Component;

/** Lays out checks of our accounts: for the printer, for a marked copy, and for the slip. */
@Component
class CheckPages {
    private final BankAccounts accounts;
    private final Series series;
    private final Typefaces typefaces;

    CheckPages(BankAccounts accounts, Series series, Typefaces typefaces) {
        this.series = series;
        this.accounts = accounts;
        this.typefaces = typefaces;
    }

    /** The payer of the checks that go this way. */
    CheckText.Payer payer(BankAccountId from, WayId way) {
        BankAccount account = accounts.get(from);
        NumberSeries numbers = series.of(way);
        Company company = accounts.company();
        return new CheckText.Payer(
                company.name(),
                company.address(),
                account.bankName(),
                numbers.currencyWord(),
                numbers.validity(),
                new RoutingNumber(account.routingNumber()),
                account.accountNumber(),
                numbers.micr(),
                numbers.stock() == Stock.BLANK);
    }

    Page check(CheckText text, CheckForm form, CheckLayout.Use use) {
        return CheckLayout.check(text, form, use, typefaces);
    }

    /** What goes on plain paper beside the check; empty when its stub lists everything. */
    List<Page> advice(CheckText text) {
        return CheckLayout.advice(text, CheckForm.LETTER, typefaces);
    }
}
