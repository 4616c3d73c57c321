package leveltally.server.frame;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.concurrent.Semaphore;
import leveltally.core.Refusal;
import org.springframework.core.io.InputStreamResource;
import org.springframework.core.io.Resource;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.web.context.request.RequestAttributes;
import org.springframework.web.context.request.RequestContextHolder;

/**
 * A file made for one answer. It is whole before its first byte is sent: however slowly somebody reads, nothing of the
 * database is held meanwhile, and what fails is told in words instead of ending in the middle of a list.
 */
public final class Download {
    /** Each holds a thread of the web server while it is read. */
    static final int MOST_AT_ONCE = 40;

    private static final Semaphore FREE = new Semaphore(MOST_AT_ONCE);

    private Download() {}

    /** What writes the content. */
    @FunctionalInterface
    public interface Content {
        void writeTo(OutputStream out) throws IOException;
    }

    /**
     * @param type its media type, with the character set where it has one
     * @throws Refusal when too many are under way
     */
    public static ResponseEntity<Resource> of(String name, String type, Content content) {
        RequestAttributes request = RequestContextHolder.currentRequestAttributes();
        if (!FREE.tryAcquire()) {
            throw Refusal.conflict(
                    "downloads-busy",
                    "Very many files are being downloaded at this moment. Try again in a minute; nothing is lost.");
        }
        request.registerDestructionCallback("download", FREE::release, RequestAttributes.SCOPE_REQUEST);
        try {
            Path file = Files.createTempFile("level-tally-", ".download");
            // its name goes when it is opened to be read, the file itself when that is closed
            InputStream stream;
            long length;
            try {
                try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file), 1 << 16)) {
                    content.writeTo(out);
                }
                length = Files.size(file);
            } finally {
                stream = Files.newInputStream(file, StandardOpenOption.DELETE_ON_CLOSE);
                request.registerDestructionCallback(
                        "download file", () -> close(stream), RequestAttributes.SCOPE_REQUEST);
            }
            return ResponseEntity.ok()
                    .header(
                            HttpHeaders.CONTENT_DISPOSITION,
                            ContentDisposition.attachment()
                                    .filename(name)
                                    .build()
                                    .toString())
                    .header(HttpHeaders.CONTENT_TYPE, type)
                    .contentLength(length)
                    .body(new InputStreamResource(stream));
        } catch (IOException broken) {
            throw new UncheckedIOException(broken);
        }
    }

    private static void close(InputStream stream) {
        try {
            stream.close();
        } catch (IOException broken) {
            throw new UncheckedIOException(broken);
        }
    }
}
