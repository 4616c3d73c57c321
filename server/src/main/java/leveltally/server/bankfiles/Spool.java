package leveltally.server.bankfiles;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.DigestOutputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.function.Consumer;
import leveltally.core.bankfiles.RecordBytes;

/** A file while it is written, on disk, so that its length and its hash are known before anything is kept. */
final class Spool implements AutoCloseable {
    private static final int AT_ONCE = 1 << 16;

    private final Path path;
    private final MessageDigest digest;
    private final OutputStream out;
    private final RecordBytes some = new RecordBytes();

    Spool() {
        try {
            this.digest = MessageDigest.getInstance("SHA-256");
            this.path = Files.createTempFile("level-tally-", ".bank");
            this.out = new BufferedOutputStream(new DigestOutputStream(Files.newOutputStream(path), digest), 1 << 16);
        } catch (IOException full) {
            throw new UncheckedIOException(full);
        } catch (NoSuchAlgorithmException everyPlatformHasIt) {
            throw new IllegalStateException(everyPlatformHasIt);
        }
    }

    /** Where a file goes that is not written record by record. */
    OutputStream out() {
        return out;
    }

    /** Appends a header, what is told of one event, or a trailer; it goes to disk some of it at a time. */
    void write(Consumer<RecordBytes> records) {
        records.accept(some);
        if (some.length() >= AT_ONCE) {
            writeSome();
        }
    }

    private void writeSome() {
        try {
            some.writeTo(out);
            some.clear();
        } catch (IOException full) {
            throw new UncheckedIOException(full);
        }
    }

    /** How long it is, and the hash of its bytes. */
    record Written(long bytes, String hash) {}

    /** Nothing is written behind this. */
    Written end() {
        writeSome();
        try {
            out.close();
            return new Written(Files.size(path), HexFormat.of().formatHex(digest.digest()));
        } catch (IOException full) {
            throw new UncheckedIOException(full);
        }
    }

    InputStream content() {
        try {
            return Files.newInputStream(path);
        } catch (IOException gone) {
            throw new UncheckedIOException(gone);
        }
    }

    @Override
    public void close() {
        try {
            out.close();
            Files.deleteIfExists(path);
        } catch (IOException busy) {
            throw new UncheckedIOException(busy);
        }
    }
}
