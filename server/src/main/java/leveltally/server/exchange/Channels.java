package leveltally.server.exchange;

import java.io.IOException;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import leveltally.core.Refusal;
import leveltally.core.exchange.ChannelKind;
import leveltally.core.exchange.FilePattern;
import leveltally.core.exchange.HostKey;
import leveltally.core.exchange.RemoteFolder;
import leveltally.core.exchange.StandardFile;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.ledger.BankAccounts;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** How the files of each account travel, as an administrator says. */
@Service
public class Channels {
    private static final int MOST_RULES = 20;
    private static final int HIGHEST_PORT = 65_535;

    private final JdbcClient jdbc;
    private final ChannelRows rows;
    private final BankAccounts accounts;
    private final Carriers carriers;
    private final AuditTrail audit;

    Channels(JdbcClient jdbc, ChannelRows rows, BankAccounts accounts, Carriers carriers, AuditTrail audit) {
        this.jdbc = jdbc;
        this.rows = rows;
        this.accounts = accounts;
        this.carriers = carriers;
        this.audit = audit;
    }

    /** What files of such names are; {@code layout} empty for a statement by the standard. */
    public record RuleView(String pattern, String layout) {}

    /**
     * A channel as it is wanted.
     *
     * @param secret a password or a private key; null to leave the one there is
     * @param version of the one that is changed; 0 for a new one
     */
    public record WantedChannel(
            ChannelKind kind,
            String host,
            int port,
            String user,
            @Nullable String secret,
            String hostKey,
            String out,
            String in,
            String decisions,
            List<RuleView> rules,
            boolean inUse,
            long version) {}

    /** A channel as it is shown: never its secret. */
    public record ChannelView(
            ChannelKind kind,
            String host,
            int port,
            String user,
            boolean hasSecret,
            String hostKey,
            String out,
            String in,
            String decisions,
            List<RuleView> rules,
            boolean inUse,
            long version) {}

    /** What can be chosen. */
    public record ChannelChoices(List<ChannelKind> kinds, List<String> decisions, List<String> layouts) {}

    /** What came of trying it: the host's key where it showed one that is not pinned, or how many files lie for us. */
    public record ChannelTried(boolean reached, String hostKey, String sentence) {}

    @Transactional(readOnly = true)
    Optional<Channel> inUse(BankAccountId account) {
        return rows.find(account).filter(Channel::inUse);
    }

    /** @throws Refusal when people carry its files */
    Channel get(BankAccountId account) {
        return inUse(account)
                .orElseThrow(() -> Refusal.conflict(
                        "no-channel",
                        "People carry the files of " + accounts.get(account).name()
                                + ": download it. An administrator can say on the account's page how they travel."));
    }

    /** Accounts whose files travel by themselves. */
    @Transactional(readOnly = true)
    public List<BankAccountId> travelling() {
        return rows.inUse(EnumSet.allOf(ChannelKind.class));
    }

    /** Accounts whose files go to the bank to practise on. */
    @Transactional(readOnly = true)
    public List<BankAccountId> practising() {
        return rows.inUse(EnumSet.of(ChannelKind.PRACTICE));
    }

    /** Null where nobody said how its files travel. */
    @Transactional(readOnly = true)
    @Nullable
    ChannelView view(Actor by, BankAccountId account) {
        by.mayDo(Deed.READ);
        return rows.find(account)
                .map(channel -> new ChannelView(
                        channel.kind(),
                        channel.host(),
                        channel.port(),
                        channel.user(),
                        channel.secret() != null,
                        channel.hostKey(),
                        channel.out().path(),
                        channel.in().path(),
                        channel.decisions(),
                        channel.rules().stream()
                                .map(rule ->
                                        new RuleView(rule.pattern().text(), rule.layout() == null ? "" : rule.layout()))
                                .toList(),
                        channel.inUse(),
                        rows.version(account)))
                .orElse(null);
    }

    /** Says how the files of an account travel. */
    @Transactional
    public void set(Actor by, BankAccountId account, WantedChannel wanted) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        String name = accounts.lock(account).name();
        Optional<Channel> before = rows.find(account);
        long version = rows.version(account);
        if (before.isPresent() && version != wanted.version()) {
            throw Refusal.conflict(
                    "channel-changed",
                    "Somebody changed how the files of " + name + " travel. Look again, then change it.");
        }
        Channel channel = checked(by, account, wanted, before);
        rows.put(channel, before.isPresent(), version + 1);
        audit.record(
                by,
                "set bank channel",
                "bank account " + account.value(),
                Map.of(
                        "by", channel.inWords(),
                        "host key", channel.hostKey(),
                        "secret", wanted.secret() == null ? "as it was" : "changed",
                        "in use", channel.inUse()));
    }

    private Channel checked(Actor by, BankAccountId account, WantedChannel wanted, Optional<Channel> before) {
        ChannelChoices choices = choices();
        if (!choices.kinds().contains(wanted.kind())) {
            throw Refusal.invalidField(
                    "channel-kind",
                    "kind",
                    "Files cannot travel by " + wanted.kind().words() + " here.");
        }
        boolean far = wanted.kind() == ChannelKind.SFTP;
        String host = far ? wanted.host().strip() : "";
        String user = far ? wanted.user().strip() : "";
        if (far && !host.matches("[A-Za-z0-9.:_-]{1,200}")) {
            throw Refusal.invalidField(
                    "channel-host", "host", "Type the name of the bank's host, such as files.bank.example.");
        }
        if (far && (wanted.port() < 1 || wanted.port() > HIGHEST_PORT)) {
            throw Refusal.invalidField(
                    "channel-port", "port", "A port is 1 to " + HIGHEST_PORT + "; SFTP is mostly at 22.");
        }
        if (far && (user.isEmpty() || user.length() > 100)) {
            throw Refusal.invalidField(
                    "channel-user", "user", "Type the user the bank gave you, at most 100 characters.");
        }
        String secret = secret(wanted, before);
        if (far && wanted.inUse() && secret == null) {
            throw Refusal.invalidField("channel-secret", "secret", "Type the password, or paste the private key.");
        }
        String hostKey = far ? wanted.hostKey().strip() : "";
        if (far && (wanted.inUse() || !hostKey.isEmpty())) {
            new HostKey(hostKey);
        }
        if (!wanted.decisions().isEmpty() && !choices.decisions().contains(wanted.decisions())) {
            throw Refusal.invalidField("no-layout", "decisions", "There is no such layout of decisions. Choose one.");
        }
        if (wanted.rules().size() > MOST_RULES) {
            throw Refusal.invalidField("many-rules", "rules", "There are at most " + MOST_RULES + " kinds of files.");
        }
        return new Channel(
                account,
                wanted.kind(),
                host,
                far ? wanted.port() : 0,
                user,
                far ? secret : null,
                hostKey,
                new RemoteFolder(wanted.out()),
                new RemoteFolder(wanted.in()),
                wanted.decisions(),
                wanted.decisions().isEmpty()
                        ? null
                        : before.map(Channel::decisionsSince).orElse(by.now()),
                wanted.rules().stream().map(rule -> rule(rule, choices)).toList(),
                wanted.inUse());
    }

    private static Channel.Rule rule(RuleView typed, ChannelChoices choices) {
        if (!typed.layout().isEmpty() && !choices.layouts().contains(typed.layout())) {
            throw Refusal.invalidField(
                    "no-layout",
                    "rules",
                    "There is no layout “" + typed.layout() + "”. Choose one for " + typed.pattern() + ".");
        }
        return new Channel.Rule(new FilePattern(typed.pattern()), typed.layout().isEmpty() ? null : typed.layout());
    }

    /** A key is tried at once: nobody learns tonight that it was pasted without its end. */
    private static @Nullable String secret(WantedChannel wanted, Optional<Channel> before) {
        String typed = wanted.secret();
        if (typed == null || typed.isBlank()) {
            return before.map(Channel::secret).orElse(null);
        }
        if (typed.contains("PRIVATE KEY")) {
            try {
                SftpTalk.keys(typed);
            } catch (IOException unreadable) {
                throw Refusal.invalidField(
                        "channel-secret",
                        "secret",
                        "This key cannot be read. Paste all of the file, from BEGIN to END, of a key without a passphrase.");
            }
            return typed.strip() + "\n";
        }
        return typed;
    }

    /** What can be chosen here. */
    @Transactional(readOnly = true)
    public ChannelChoices choices() {
        List<ChannelKind> kinds = new ArrayList<>(List.of(ChannelKind.SFTP));
        if (carriers.hasFolders()) {
            kinds.add(ChannelKind.FOLDER);
        }
        if (carriers.canPractise()) {
            kinds.add(ChannelKind.PRACTICE);
        }
        return new ChannelChoices(
                kinds,
                names("file_use = 'DECISIONS'"),
                Stream.concat(
                                Stream.of(StandardFile.values())
                                        .filter(StandardFile::isOfPayments)
                                        .map(StandardFile::words),
                                names("file_use NOT IN ('POSITIVE_PAY', 'DECISIONS')").stream())
                        .toList());
    }

    private List<String> names(String which) {
        return jdbc.sql("SELECT DISTINCT name FROM bank_file_layout WHERE " + which + " ORDER BY name")
                .query(String.class)
                .list();
    }

    /** Reaches for the bank by what is typed, without keeping or sending anything. */
    ChannelTried attempt(Actor by, BankAccountId account, WantedChannel wanted) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        WantedChannel unused = new WantedChannel(
                wanted.kind(),
                wanted.host(),
                wanted.port(),
                wanted.user(),
                wanted.secret(),
                wanted.hostKey(),
                wanted.out(),
                wanted.in(),
                wanted.decisions(),
                wanted.rules(),
                false,
                wanted.version());
        Channel channel = checked(by, account, unused, rows.find(account));
        try (Talk talk = carriers.open(channel)) {
            int lie = talk.list(channel.in().path()).size();
            talk.list(channel.out().path());
            return new ChannelTried(
                    true,
                    channel.hostKey(),
                    "Reached. " + lie + (lie == 1 ? " file lies" : " files lie") + " there for us.");
        } catch (HostNotKnown other) {
            return new ChannelTried(false, other.shown(), other.getMessage() + ".");
        } catch (IOException failed) {
            return new ChannelTried(false, channel.hostKey(), "Not reached: " + Courier.said(failed) + ".");
        }
    }
}
