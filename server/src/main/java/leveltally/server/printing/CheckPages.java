package leveltally.server.printing;

import java.util.List;
import leveltally.core.checks.Stock;
import leveltally.core.company.Company;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.ledger.WayId;
import leveltally.core.printing.CheckForm;
import leveltally.core.printing.CheckLayout;
import leveltally.core.printing.CheckText;
import leveltally.core.printing.Page;
import leveltally.core.printing.Paper;
import leveltally.server.checks.NumberSeries;
import leveltally.server.checks.Series;
import leveltally.server.company.Companies;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import org.springframework.stereotype.Component;

/** Lays out our checks: for the printer, for a marked copy, and for the slip. */
@Component
class CheckPages {
    private final BankAccounts accounts;
    private final Companies companies;
    private final Series series;
    private final Typefaces typefaces;

    CheckPages(BankAccounts accounts, Companies companies, Series series, Typefaces typefaces) {
        this.accounts = accounts;
        this.companies = companies;
        this.series = series;
        this.typefaces = typefaces;
    }

    /** Who pays by the checks of this way, as they name it today. */
    CheckText.Payer payer(BankAccountId from, WayId way) {
        BankAccount account = accounts.get(from);
        NumberSeries numbers = series.of(way);
        Company company = companies.company();
        return new CheckText.Payer(
                company.name(), company.address(), account.bankName(), numbers.currencyWord(), numbers.validity());
    }

    /** The stock that the checks of this way are printed on. */
    Paper paper(BankAccountId from, WayId way) {
        BankAccount account = accounts.get(from);
        NumberSeries numbers = series.of(way);
        return numbers.stock() == Stock.NUMBERED
                ? new Paper.Numbered()
                : new Paper.Blank(numbers.micr(), new RoutingNumber(account.routingNumber()), account.accountNumber());
    }

    Page forThePrinter(CheckText text, CheckForm form, Paper paper) {
        return CheckLayout.forThePrinter(text, form, paper, typefaces);
    }

    Page toLookAt(CheckText text, CheckForm form) {
        return CheckLayout.toLookAt(text, form, typefaces);
    }

    /** What goes on plain paper beside the check; empty when its stub lists everything. */
    List<Page> advice(CheckText text, CheckForm form) {
        return CheckLayout.advice(text, form, typefaces);
    }
}
