package leveltally.server.electronic;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import leveltally.core.electronic.AchAgreement;
import leveltally.core.electronic.EntryClass;
import leveltally.core.electronic.PlainText;
import leveltally.core.electronic.TransferAgreement;
import leveltally.core.electronic.TransferSender.Charges;
import leveltally.core.electronic.TransferSender.Message;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.money.Money;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.company.Companies;
import leveltally.server.electronic.FilesSetting.AchTyped;
import leveltally.server.electronic.FilesSetting.Letter;
import leveltally.server.electronic.FilesSetting.TransfersTyped;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Shows what a bank agreed on, or proposes what it mostly is. */
@Component
class FilesSettings {
    private static final int LONGEST_COMPANY = 16;
    private static final int LONGEST_NAME = 23;

    private final BankAccounts accounts;
    private final ElectronicWays ways;
    private final Companies companies;

    FilesSettings(BankAccounts accounts, ElectronicWays ways, Companies companies) {
        this.accounts = accounts;
        this.ways = ways;
        this.companies = companies;
    }

    @Transactional(readOnly = true)
    FilesSetting of(BankAccountId id, WayId way) {
        BankAccount account = accounts.get(id);
        PaymentMethod method = account.way(way).method();
        Optional<ElectronicWay> known = ways.find(way);
        return known.map(found -> shown(method, found)).orElseGet(() -> proposed(account, method));
    }

    private static FilesSetting shown(PaymentMethod method, ElectronicWay way) {
        boolean iban = way.own().kind() == BankDetails.Kind.IBAN;
        return new FilesSetting(
                true,
                method,
                way.agreement() instanceof AchAgreement ach ? AchTyped.of(ach) : null,
                way.agreement() instanceof TransferAgreement transfers ? TransfersTyped.of(transfers) : null,
                iban ? way.own().masked() : "",
                way.own().bic(),
                limit(way.perPayment()),
                limit(way.perFile()),
                limit(way.perDay()),
                way.splits(),
                way.cutOff().toString(),
                way.ahead(),
                way.prefix(),
                way.nextReference(),
                way.version(),
                letters(method));
    }

    private static String limit(@Nullable Money amount) {
        return amount == null ? "" : amount.toString();
    }

    private FilesSetting proposed(BankAccount account, PaymentMethod method) {
        String company = companies.company().name();
        boolean ach = method == PaymentMethod.ACH;
        return new FilesSetting(
                false,
                method,
                ach
                        ? new AchTyped(
                                account.routingNumber(),
                                written(account.bankName(), LONGEST_NAME),
                                "",
                                written(company, LONGEST_NAME),
                                written(company, LONGEST_COMPANY),
                                "",
                                "INVOICES",
                                account.routingNumber(),
                                false,
                                EntryClass.CCD,
                                null)
                        : null,
                ach ? null : new TransfersTyped(Message.PAIN_001_09, company, "", Charges.SLEV, true),
                "",
                "",
                "",
                "",
                "",
                false,
                "15:00",
                1,
                ach ? "A" : "CT",
                1,
                0,
                letters(method));
    }

    private static String written(String name, int most) {
        String plain = PlainText.ACH.of(name).toUpperCase(java.util.Locale.ROOT);
        return plain.substring(0, Math.min(most, plain.length())).strip();
    }

    private static List<Letter> letters(PaymentMethod method) {
        PlainText text = method == PaymentMethod.ACH ? PlainText.ACH : PlainText.TRANSFER;
        return text.written().entrySet().stream()
                .map(one -> new Letter(one.getKey(), one.getValue()))
                .sorted(Comparator.comparing(Letter::sign))
                .toList();
    }
}
