package leveltally.server.paper;

import java.util.List;
import leveltally.core.checks.Stock;
import leveltally.core.company.Company;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.ledger.WayId;
import leveltally.core.paper.CheckDrawing;
import leveltally.core.paper.CheckLayout;
import leveltally.core.paper.CheckText;
import leveltally.core.paper.Page;
import leveltally.core.paper.Paper;
import leveltally.core.paper.StandardLayouts;
import leveltally.server.checks.NumberSeries;
import leveltally.server.checks.Series;
import leveltally.server.company.Companies;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import org.springframework.stereotype.Component;

/** Lays out our checks: for the printer, for a marked copy, and for the slip. */
@Component
public class CheckPages {
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
    public CheckText.Payer payer(BankAccountId from, WayId way) {
        BankAccount account = accounts.get(from);
        NumberSeries numbers = series.of(way);
        Company company = companies.company();
        return new CheckText.Payer(
                company.name(), company.address(), account.bankName(), numbers.currencyWord(), numbers.validity());
    }

    /** The stock that the checks of this way are printed on. */
    public Paper paper(BankAccountId from, WayId way) {
        BankAccount account = accounts.get(from);
        NumberSeries numbers = series.of(way);
        return numbers.stock() == Stock.NUMBERED
                ? new Paper.Numbered()
                : new Paper.Blank(numbers.micr(), new RoutingNumber(account.routingNumber()), account.accountNumber());
    }

    public Page forThePrinter(CheckText text, CheckLayout layout, Paper paper) {
        return CheckDrawing.forThePrinter(text, layout, paper, typefaces);
    }

    public Page toLookAt(CheckText text, CheckLayout layout) {
        return CheckDrawing.toLookAt(text, layout, typefaces);
    }

    /** On the slip beside a list: whatever it says, it is shown. */
    public Page onSlip(CheckText text) {
        return CheckDrawing.loosely(text, StandardLayouts.slip(text.stub()), typefaces);
    }

    /** What goes on plain paper beside the check; empty when its stub lists everything. */
    public List<Page> advice(CheckText text, CheckLayout layout) {
        return CheckDrawing.advice(text, layout, typefaces);
    }
}
