package leveltally.server.exchange;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.sql.Timestamp;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.UUID;
import java.util.zip.GZIPOutputStream;
import leveltally.core.Sha256;
import leveltally.core.exchange.Placing;
import leveltally.core.exchange.Tries;
import leveltally.core.ledger.BankAccountId;
import leveltally.server.bankfiles.BankFiles;
import leveltally.server.frame.WorkIds;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * Carries files to the banks and fetches what lies there. Several may run side by side: each takes a file for a while before
 * it carries it. No transaction is open while a bank is spoken to; what is done is written down step by step.
 */
@Component
public class Courier {
    private static final Logger LOG = LoggerFactory.getLogger(Courier.class);
    private static final int LONGEST = 64 << 20;
    /** What the database takes in one statement, and room beside it. */
    private static final int MOST_AT_ONCE = 15 << 20;

    private static final int LONGEST_TROUBLE = 300;
    private static final int LONGEST_NAME = 120;
    private static final int SHOWN_OF_LONG = 40;
    private static final int AT_ONCE = 20;
    private static final int COMPARED = 1 << 16;
    private static final Duration TAKEN = Duration.ofMinutes(15);
    /** Under this ending no bank reads. */
    static final String PART = ".part";

    private final JdbcClient jdbc;
    private final Channels channels;
    private final Carriers carriers;
    private final BankFiles files;
    private final WorkIds ids;

    Courier(JdbcClient jdbc, Channels channels, Carriers carriers, BankFiles files, WorkIds ids) {
        this.jdbc = jdbc;
        this.channels = channels;
        this.carriers = carriers;
        this.files = files;
        this.ids = ids;
    }

    private record Going(long file, BankAccountId account, int tries, boolean namingBegun) {}

    @Scheduled(fixedDelayString = "${leveltally.exchange.every}", initialDelayString = "${leveltally.exchange.every}")
    void rounds() {
        carry(Instant.now());
    }

    @Scheduled(
            fixedDelayString = "${leveltally.exchange.look-every}",
            initialDelayString = "${leveltally.exchange.look-every}")
    void looks() {
        for (BankAccountId account : channels.travelling()) {
            try {
                look(account, Instant.now());
            } catch (RuntimeException broken) {
                // the others are looked at all the same
                LOG.warn("the folder of account {} was not looked at", account.value(), broken);
            }
        }
    }

    /** Carries what waits now; answers how many files are with their banks. */
    public int carry(Instant now) {
        jdbc.sql("""
                        UPDATE bank_sending s JOIN bank_file f ON f.id = s.file_id SET s.state = 'STUCK',
                          s.trouble = 'The answer of the bank was recorded before it was sent, so it was not sent.'
                        WHERE s.state = 'WAITING' AND f.state <> 'MADE' AND (s.taken_until IS NULL OR s.taken_until <= NOW(6))
                        """).update();
        List<Going> waiting = jdbc.sql("""
                        SELECT file_id, bank_account_id, tries, naming_at IS NOT NULL AS naming FROM bank_sending
                        WHERE state = 'WAITING' AND next_try_at <= ? AND (taken_until IS NULL OR taken_until <= NOW(6))
                        ORDER BY next_try_at, file_id LIMIT ?
                        """)
                .params(Timestamp.from(now), AT_ONCE)
                .query((r, n) -> new Going(
                        r.getLong("file_id"),
                        new BankAccountId(r.getLong("bank_account_id")),
                        r.getInt("tries"),
                        r.getBoolean("naming")))
                .list();
        int sent = 0;
        // a bank that does not answer holds up no other
        Set<BankAccountId> silent = new HashSet<>();
        for (Going one : waiting) {
            String lease = UUID.randomUUID().toString();
            if (!silent.contains(one.account()) && isMine(one, lease)) {
                if (carry(one, lease, now)) {
                    sent++;
                } else {
                    silent.add(one.account());
                }
            }
        }
        return sent;
    }

    /** Takes it for a while by the database's clock, as it was seen. */
    private boolean isMine(Going one, String lease) {
        return jdbc.sql("UPDATE bank_sending SET taken_until = NOW(6) + INTERVAL ? SECOND, lease_token = ?"
                                + " WHERE file_id = ? AND state = 'WAITING' AND tries = ? AND (naming_at IS NOT NULL) = ?"
                                + " AND (taken_until IS NULL OR taken_until <= NOW(6))")
                        .params(TAKEN.toSeconds(), lease, one.file(), one.tries(), one.namingBegun())
                        .update()
                == 1;
    }

    private boolean carry(Going one, String lease, Instant now) {
        try {
            Optional<Channel> channel = channels.inUse(one.account());
            if (channel.isEmpty()) {
                stop(one, lease, "STUCK", "Its account has no channel any more. Download the file, or set one.");
                return false;
            }
            BankFiles.Made made = files.made(one.file());
            String name = channel.get().out().of(made.name());
            try (Talk talk = carriers.open(channel.get())) {
                return place(talk, one, lease, name, made.bytes(), now);
            }
        } catch (HostNotKnown other) {
            stop(one, lease, "STUCK", other.getMessage() + ".");
        } catch (IOException | RuntimeException failed) {
            later(one, lease, now, said(failed));
        }
        return false;
    }

    private boolean place(Talk talk, Going one, String lease, String name, long bytes, Instant now) throws IOException {
        String part = part(name, one.file());
        OptionalLong laid = talk.size(part);
        boolean whole = laid.isPresent() && laid.getAsLong() == bytes;
        switch (Placing.next(one.namingBegun(), found(talk, name, one.file(), bytes), whole)) {
            case LAY -> {
                try (InputStream content = files.open(one.file())) {
                    talk.write(part, content);
                }
                if (talk.size(part).orElse(-1) != bytes) {
                    throw new IOException("it did not arrive whole");
                }
                if (!begin(one, lease, now)) {
                    // somebody else took it meanwhile
                    return false;
                }
                talk.rename(part, name);
            }
            case NAME -> talk.rename(part, name);
            case SENT -> {
                // it is there, whoever laid it
            }
            case OTHER_THERE -> {
                stop(
                        one,
                        lease,
                        "STUCK",
                        "The bank has another file called " + name
                                + " already; nothing was laid over it. Ask the bank what it is.");
                return false;
            }
            case NOT_KNOWN -> {
                stop(
                        one,
                        lease,
                        "UNKNOWN",
                        "The connection was lost at the last step, and the file lies there no more:"
                                + " the bank may have taken it. Ask the bank, then say whether it has it.");
                return false;
            }
        }
        jdbc.sql(
                        "UPDATE bank_sending SET state = 'SENT', sent_at = ?, taken_until = NULL, tries = tries + 1, trouble = ''"
                                + " WHERE file_id = ? AND lease_token = ? AND state = 'WAITING'")
                .params(Timestamp.from(now), one.file(), lease)
                .update();
        return true;
    }

    /** A name of its own, whatever else is laid there under a name like this one's. */
    static String part(String name, long file) {
        return name + "." + file + PART;
    }

    private Placing.Found found(Talk talk, String name, long file, long bytes) throws IOException {
        OptionalLong size = talk.size(name);
        if (size.isEmpty()) {
            return Placing.Found.NOTHING;
        }
        if (size.getAsLong() != bytes) {
            return Placing.Found.OTHER;
        }
        try (InputStream ours = files.open(file);
                InputStream theirs = talk.open(name)) {
            for (byte[] some = ours.readNBytes(COMPARED); some.length > 0; some = ours.readNBytes(COMPARED)) {
                if (!Arrays.equals(some, theirs.readNBytes(some.length))) {
                    return Placing.Found.OTHER;
                }
            }
        }
        return Placing.Found.SAME;
    }

    /** Written down before it is done: should nothing be heard of it, nobody does it again unasked. */
    private boolean begin(Going one, String lease, Instant now) {
        return jdbc.sql(
                                "UPDATE bank_sending SET naming_at = ? WHERE file_id = ? AND lease_token = ? AND state = 'WAITING'")
                        .params(Timestamp.from(now), one.file(), lease)
                        .update()
                == 1;
    }

    private void stop(Going one, String lease, String state, String why) {
        LOG.info("bank file {} stopped: {}", one.file(), why);
        jdbc.sql("UPDATE bank_sending SET state = ?, taken_until = NULL, tries = tries + 1, trouble = ?"
                        + " WHERE file_id = ? AND lease_token = ?")
                .params(state, shortened(why), one.file(), lease)
                .update();
    }

    private void later(Going one, String lease, Instant now, String why) {
        int tries = one.tries() + 1;
        if (tries >= Tries.MOST) {
            stop(one, lease, "STUCK", "Given up after " + tries + " tries: " + why + ".");
            return;
        }
        LOG.info("bank file {} failed for the {}. time: {}", one.file(), tries, why);
        jdbc.sql("UPDATE bank_sending SET tries = ?, next_try_at = ?, taken_until = NULL, trouble = ?"
                        + " WHERE file_id = ? AND lease_token = ?")
                .params(
                        tries,
                        Timestamp.from(now.plus(Tries.after(tries))),
                        shortened("The bank was not reached: " + why + ". It is tried again."),
                        one.file(),
                        lease)
                .update();
    }

    /** Fetches what lies there and was not fetched yet; answers how many files came. */
    public int look(BankAccountId account, Instant now) {
        Optional<Channel> channel = channels.inUse(account);
        if (channel.isEmpty()) {
            return 0;
        }
        int came = 0;
        List<String> troubles = new ArrayList<>();
        try (Talk talk = carriers.open(channel.get())) {
            Set<String> known = fetched(account);
            List<Talk.Lying> there =
                    new ArrayList<>(talk.list(channel.get().in().path()));
            there.sort(Comparator.comparing(Talk.Lying::writtenAt).thenComparing(Talk.Lying::name));
            for (Talk.Lying lying : there) {
                if (isMeant(lying) && !known.contains(key(lying.name(), lying.bytes(), at(lying)))) {
                    try {
                        came += fetch(account, talk, channel.get(), lying, now);
                    } catch (IOException | RuntimeException failed) {
                        // the others are fetched all the same
                        troubles.add(shownName(lying.name()) + " could not be fetched: " + said(failed) + ".");
                    }
                }
            }
        } catch (IOException | RuntimeException failed) {
            troubles.add("The bank's folder could not be read: " + said(failed) + ".");
        }
        troubles.forEach(trouble -> LOG.info("account {}: {}", account.value(), trouble));
        jdbc.sql("UPDATE bank_channel SET looked_at = ?, trouble = ? WHERE bank_account_id = ?")
                .params(Timestamp.from(now), inOneLine(troubles), account.value())
                .update();
        return came;
    }

    /** The first in whole words; how many more there are stands before it, which no cutting takes away. */
    private static String inOneLine(List<String> troubles) {
        return switch (troubles.size()) {
            case 0 -> "";
            case 1 -> shortened(troubles.get(0));
            default -> shortened(troubles.size() + " files could not be fetched; the first: " + troubles.get(0));
        };
    }

    private static String shownName(String name) {
        return name.length() > LONGEST_NAME ? name.substring(0, SHOWN_OF_LONG) + "…" : name;
    }

    private static boolean isMeant(Talk.Lying lying) {
        String name = lying.name();
        return !name.startsWith(".") && !name.endsWith(PART) && !name.endsWith(".tmp") && lying.bytes() > 0;
    }

    /** What was fetched of an account: nothing is deleted at a bank, so all of it lies there still. */
    private Set<String> fetched(BankAccountId account) {
        Set<String> known = new HashSet<>();
        jdbc.sql("SELECT file_name, bytes, written_at FROM bank_incoming WHERE bank_account_id = ?")
                .param(account.value())
                .query((java.sql.ResultSet r) -> {
                    known.add(key(r.getString("file_name"), r.getLong("bytes"), r.getTimestamp("written_at")));
                });
        return known;
    }

    private static String key(String name, long bytes, Timestamp at) {
        return name + "/" + bytes + "/" + at.toInstant();
    }

    /** One that is still being written is fetched the next time. */
    private int fetch(BankAccountId account, Talk talk, Channel channel, Talk.Lying lying, Instant now)
            throws IOException {
        if (lying.name().length() > LONGEST_NAME) {
            throw new IOException(
                    "its name has " + lying.name().length() + " characters; ask the bank for at most " + LONGEST_NAME);
        }
        if (lying.bytes() > LONGEST) {
            throw new IOException("it has more than " + (LONGEST >> 20) + " MB; ask the bank for shorter ones");
        }
        byte[] content = talk.read(channel.in().of(lying.name()), LONGEST);
        if (content.length != lying.bytes()) {
            return 0;
        }
        byte[] zipped = zipped(content);
        if (zipped.length > MOST_AT_ONCE) {
            throw new IOException(
                    "packed it has more than " + (MOST_AT_ONCE >> 20) + " MB; ask the bank for shorter ones");
        }
        long id = ids.supply().next();
        int came = jdbc.sql("""
                        INSERT IGNORE INTO bank_incoming (id, bank_account_id, file_name, content, content_hash, bytes, written_at, fetched_at,
                          state, said, gap, version) VALUES (?, ?, ?, ?, ?, ?, ?, ?, 'WAITING', '', FALSE, 0)
                        """)
                .params(
                        id,
                        account.value(),
                        lying.name(),
                        zipped,
                        Sha256.hex(content),
                        lying.bytes(),
                        at(lying),
                        Timestamp.from(now))
                .update();
        if (came > 0) {
            jdbc.sql(
                            "UPDATE bank_incoming SET state = 'SET_ASIDE', done_at = ?, said = 'The bank laid another one there under"
                                    + " this name.' WHERE bank_account_id = ? AND file_name = ? AND state = 'WAITING' AND id <> ?")
                    .params(Timestamp.from(now), account.value(), lying.name(), id)
                    .update();
        }
        return came;
    }

    /** As exactly as the database keeps it. */
    private static Timestamp at(Talk.Lying lying) {
        return Timestamp.from(lying.writtenAt().truncatedTo(ChronoUnit.MILLIS));
    }

    private static byte[] zipped(byte[] content) {
        ByteArrayOutputStream packed = new ByteArrayOutputStream();
        try (GZIPOutputStream to = new GZIPOutputStream(packed)) {
            to.write(content);
        } catch (IOException inMemory) {
            throw new UncheckedIOException(inMemory);
        }
        return packed.toByteArray();
    }

    /** What went wrong, without the names of classes. */
    static String said(Exception failed) {
        String message = failed.getMessage();
        String said = message == null || message.isBlank()
                ? "no answer"
                : message.lines().findFirst().orElse("");
        return said.replaceFirst("[.]+$", "");
    }

    private static String shortened(String text) {
        return text.length() > LONGEST_TROUBLE ? text.substring(0, LONGEST_TROUBLE) : text;
    }
}
