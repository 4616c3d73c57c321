package leveltally.server.exchange;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalLong;
import java.util.stream.Stream;

/** Files in a folder of this server, which another program carries on. */
final class FolderTalk implements Talk {
    private final Path root;

    FolderTalk(Path root) throws IOException {
        if (!Files.isDirectory(root)) {
            throw new IOException("the folder " + root + " is not there");
        }
        this.root = root.toRealPath();
    }

    /** Whatever links lie there, nothing outside is read or written. */
    private Path at(String path) throws IOException {
        Path at = root.resolve(path.replaceFirst("^/+", "")).normalize();
        Path there = at;
        while (!Files.exists(there)) {
            there = there.getParent();
        }
        if (!there.toRealPath().startsWith(root)) {
            throw new IOException("“" + path + "” does not lie in the folder for banks");
        }
        return at;
    }

    @Override
    public List<Lying> list(String folder) throws IOException {
        List<Lying> found = new ArrayList<>();
        try (Stream<Path> files = Files.list(at(folder))) {
            for (Path file : files.filter(Files::isRegularFile).toList()) {
                found.add(new Lying(
                        String.valueOf(file.getFileName()),
                        Files.size(file),
                        Files.getLastModifiedTime(file).toInstant()));
            }
        }
        return found;
    }

    @Override
    public OptionalLong size(String path) throws IOException {
        Path file = at(path);
        return Files.exists(file) ? OptionalLong.of(Files.size(file)) : OptionalLong.empty();
    }

    @Override
    public byte[] read(String path, int most) throws IOException {
        try (InputStream from = open(path)) {
            return atMost(from, most);
        }
    }

    static byte[] atMost(InputStream from, int most) throws IOException {
        byte[] content = from.readNBytes(most + 1);
        if (content.length > most) {
            throw new IOException("it has more than " + (most >> 20) + " MB");
        }
        return content;
    }

    @Override
    public InputStream open(String path) throws IOException {
        return Files.newInputStream(at(path));
    }

    @Override
    public void write(String path, InputStream content) throws IOException {
        Files.copy(content, at(path), StandardCopyOption.REPLACE_EXISTING);
    }

    @Override
    public void rename(String from, String to) throws IOException {
        // without REPLACE_EXISTING a file of this name stays
        Files.move(at(from), at(to));
    }

    @Override
    public void close() {
        // nothing is held open
    }
}
