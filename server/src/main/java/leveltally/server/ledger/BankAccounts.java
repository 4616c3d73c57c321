package leveltally.server.ledger;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Currency;
import java.util.HexFormat;
import java.util.List;
import javax.crypto.SecretKey;
import javax.crypto.spec.SecretKeySpec;
import leveltally.core.Refusal;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.BankAccountId;
import leveltally.server.frame.Settings;
import org.jspecify.annotations.Nullable;
import org.springframework.security.crypto.encrypt.AesGcmBytesEncryptor;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The bank accounts, and the rows that check numbers and file serials come from. */
@Service
public class BankAccounts {
    private final EntityManager entities;
    private final AesGcmBytesEncryptor seal;

    BankAccounts(EntityManager entities, Settings settings) {
        this.entities = entities;
        // AES-256 in GCM with a random vector per value; the configured key is random, so one hash spreads it
        this.seal =
                AesGcmBytesEncryptor.withSecretKey(spread(settings.sealKey())).build();
    }

    private static SecretKey spread(String key) {
        try {
            byte[] hash = MessageDigest.getInstance("SHA-256").digest(key.getBytes(StandardCharsets.UTF_8));
            return new SecretKeySpec(hash, "AES");
        } catch (NoSuchAlgorithmException everyPlatformHasIt) {
            throw new IllegalStateException(everyPlatformHasIt);
        }
    }

    @Transactional
    public BankAccountId add(BankAccount wanted) {
        new leveltally.core.printing.RoutingNumber(wanted.routingNumber());
        BankAccountEntity account = new BankAccountEntity();
        account.name = wanted.name();
        account.bankName = wanted.bankName();
        account.currency = wanted.currency().getCurrencyCode();
        account.method = wanted.method();
        account.stock = wanted.stock();
        account.routingNumber = wanted.routingNumber();
        account.accountNumberSealed =
                HexFormat.of().formatHex(seal.encrypt(wanted.accountNumber().getBytes(StandardCharsets.UTF_8)));
        account.micrPattern = wanted.micrPattern();
        account.currencyWord = wanted.currencyWord();
        account.validity = wanted.validity();
        account.cashAccountId = wanted.cash().value();
        account.discountAccountId = wanted.discountsTaken().value();
        account.firstNumber = wanted.firstNumber();
        account.nextNumber = wanted.nextNumber();
        account.positivePay = wanted.positivePay();
        account.layoutId = wanted.layout();
        account.nextFileSerial = 1;
        account.position = list().size() + 1;
        entities.persist(account);
        return new BankAccountId(account.id);
    }

    @Transactional
    public void setCompany(Company company) {
        CompanyEntity row = new CompanyEntity();
        row.name = company.name();
        row.address = String.join("\n", company.address());
        row.graceDays = company.graceDays();
        entities.merge(row);
    }

    @Transactional(readOnly = true)
    public Company company() {
        CompanyEntity row = entities.find(CompanyEntity.class, CompanyEntity.ONLY);
        if (row == null) {
            throw Refusal.conflict("no-company", "No company is set up yet. An administrator does that first.");
        }
        return new Company(row.name, List.of(row.address.split("\n")), row.graceDays);
    }

    /** Main account first. */
    @Transactional(readOnly = true)
    public List<BankAccount> list() {
        return entities.createQuery("select a from BankAccountEntity a order by a.position", BankAccountEntity.class)
                .getResultStream()
                .map(this::view)
                .toList();
    }

    @Transactional(readOnly = true)
    public BankAccount get(BankAccountId id) {
        return view(row(id, null));
    }

    /**
     * Sets the next free number; the account's row stays locked until the transaction ends, so that
     * two never take the same.
     */
    @Transactional
    public void advanceNumber(BankAccountId id, long next) {
        BankAccountEntity account = row(id, LockModeType.PESSIMISTIC_WRITE);
        account.nextNumber = next;
    }

    /** The account with its row locked until the transaction ends: whoever takes numbers starts here. */
    @Transactional
    public BankAccount lock(BankAccountId id) {
        return view(row(id, LockModeType.PESSIMISTIC_WRITE));
    }

    /** The serial number of the next file, used up by asking. */
    @Transactional
    public long takeFileSerial(BankAccountId id) {
        return row(id, LockModeType.PESSIMISTIC_WRITE).nextFileSerial++;
    }

    private BankAccountEntity row(BankAccountId id, @Nullable LockModeType lock) {
        BankAccountEntity account = entities.find(BankAccountEntity.class, id.value());
        if (account == null) {
            throw Refusal.notFound("no-bank-account", "There is no such bank account. Choose one from the list.");
        }
        if (lock != null) {
            entities.refresh(account, lock);
        }
        return account;
    }

    private BankAccount view(BankAccountEntity a) {
        return new BankAccount(
                new BankAccountId(a.id),
                a.name,
                a.bankName,
                Currency.getInstance(a.currency),
                a.method,
                a.stock,
                a.routingNumber,
                new String(seal.decrypt(HexFormat.of().parseHex(a.accountNumberSealed)), StandardCharsets.UTF_8),
                a.micrPattern,
                a.currencyWord,
                a.validity,
                new AccountId(a.cashAccountId),
                new AccountId(a.discountAccountId),
                a.firstNumber,
                a.nextNumber,
                a.positivePay,
                a.layoutId);
    }
}
