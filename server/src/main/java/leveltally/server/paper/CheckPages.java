package leveltally.server.paper;

import java.util.List;
import java.util.Objects;
import leveltally.core.checks.Signing;
import leveltally.core.checks.Stock;
import leveltally.core.company.Company;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.ledger.WayId;
import leveltally.core.money.Money;
import leveltally.core.paper.CheckDrawing;
import leveltally.core.paper.CheckLayout;
import leveltally.core.paper.CheckText;
import leveltally.core.paper.Page;
import leveltally.core.paper.Paper;
import leveltally.core.paper.Signature;
import leveltally.core.paper.StandardLayouts;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.checks.NumberSeries;
import leveltally.server.checks.Series;
import leveltally.server.company.Companies;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.pictures.Pictures;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Lays out our checks: for the printer, for a marked copy, and for the slip. */
@Component
public class CheckPages {
    private final BankAccounts accounts;
    private final Companies companies;
    private final Series series;
    private final Typefaces typefaces;
    private final Pictures pictures;

    CheckPages(BankAccounts accounts, Companies companies, Series series, Typefaces typefaces, Pictures pictures) {
        this.pictures = pictures;
        this.accounts = accounts;
        this.companies = companies;
        this.series = series;
        this.typefaces = typefaces;
    }

    /** Who pays this way, as its checks or advices name it today. */
    public CheckText.Payer payer(BankAccountId from, WayId way) {
        BankAccount account = accounts.get(from);
        Company company = companies.company();
        if (account.way(way).method() != PaymentMethod.CHECK) {
            return new CheckText.Payer(
                    company.name(), company.address(), account.bankName(), "", "", companies.logo(), null);
        }
        NumberSeries numbers = series.of(way);
        Long second = numbers.signing().secondAbove();
        return new CheckText.Payer(
                company.name(),
                company.address(),
                account.bankName(),
                numbers.currencyWord(),
                numbers.validity(),
                companies.logo(),
                second == null ? null : Money.ofMinor(second, account.currency()));
    }

    /** The signature that is printed on the checks of this way; null where each is signed by hand. */
    public @Nullable Signature signature(BankAccountId from, WayId way) {
        Signing signing = series.of(way).signing();
        Long picture = signing.picture();
        return picture == null
                ? null
                : new Signature(
                        pictures.get(picture),
                        Money.ofMinor(
                                Objects.requireNonNull(signing.pictureUpTo()),
                                accounts.get(from).currency()));
    }

    /** The stock that the checks of this way are printed on. */
    public Paper paper(BankAccountId from, WayId way) {
        BankAccount account = accounts.get(from);
        NumberSeries numbers = series.of(way);
        return numbers.stock() == Stock.NUMBERED
                ? new Paper.Numbered()
                : new Paper.Blank(numbers.micr(), new RoutingNumber(account.routingNumber()), account.accountNumber());
    }

    public Page forThePrinter(CheckText text, CheckLayout layout, Paper paper, @Nullable Signature signature) {
        return CheckDrawing.forThePrinter(text, layout, paper, signature, typefaces);
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

    /** All lines, for a payee who is told by mail. */
    public List<Page> wholeAdvice(CheckText text, CheckLayout layout) {
        return CheckDrawing.wholeAdvice(text, layout, typefaces);
    }

    /** As a PDF, with what its pictures show; one page is in memory at a time. */
    public byte[] pdf(String title, Iterable<Page> drawn) {
        return Pdf.of(title, drawn, pictures::ink);
    }
}
