package leveltally.server.frame;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.Mockito.mock;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.core.io.Resource;
import org.springframework.http.ResponseEntity;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;

/** A download is whole before it is sent, and leaves nothing behind. */
class DownloadTest {
    private final List<ServletRequestAttributes> requests = new ArrayList<>();

    private ResponseEntity<Resource> asked(Download.Content content) {
        ServletRequestAttributes request = new ServletRequestAttributes(mock(HttpServletRequest.class));
        requests.add(request);
        RequestContextHolder.setRequestAttributes(request);
        return Download.of("list.csv", "text/csv", content);
    }

    @AfterEach
    void requestsEnd() {
        requests.forEach(ServletRequestAttributes::requestCompleted);
        requests.clear();
        RequestContextHolder.resetRequestAttributes();
    }

    private static Set<Path> files() throws IOException {
        try (var all = Files.list(Path.of(System.getProperty("java.io.tmpdir")))) {
            return all.filter(path -> path.toString().endsWith(".download")).collect(Collectors.toSet());
        }
    }

    @Test
    void isWholeWhenItIsAnsweredAndGoneWithItsRequest() throws IOException {
        Set<Path> before = files();
        var answer = asked(out -> out.write("whole".getBytes(StandardCharsets.UTF_8)));
        assertThat(answer.getHeaders().getContentLength()).isEqualTo(5);
        assertThat(answer.getBody().getInputStream().readAllBytes()).asString().isEqualTo("whole");
        requestsEnd();
        assertThat(files()).isEqualTo(before);
    }

    @Test
    void whatFailsIsToldAndLeavesNoFile() throws IOException {
        Set<Path> before = files();
        assertThatThrownBy(() -> asked(out -> {
                    out.write(1);
                    throw new IllegalStateException("in the middle");
                }))
                .hasMessage("in the middle");
        requestsEnd();
        assertThat(files()).isEqualTo(before);
    }

    @Test
    void slowReadersAreHeldToANumberAndThenMakeRoom() {
        for (int i = 0; i < Download.MOST_AT_ONCE; i++) {
            asked(out -> out.write(1));
        }
        assertThatThrownBy(() -> asked(out -> out.write(1)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("Try again in a minute");
        requestsEnd();
        assertThat(asked(out -> out.write(1)).getStatusCode().value()).isEqualTo(200);
    }
}
