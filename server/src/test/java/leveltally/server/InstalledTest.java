package leveltally.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.core.simple.JdbcClient;

/** As a company installs it: an empty database, no demo, an https proxy in front. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class InstalledTest {
    private static final String CODE = "a-setup-code-only-for-tests";
    private static final String PASSWORD = "an-oar-and-a-half-moon";

    private ConfigurableApplicationContext installed;
    private String address;

    @BeforeAll
    void anEmptyDatabase() {
        App.DATABASE.make("installed");
        installed = App.launch(
                App.DATABASE.url("installed"),
                "--leveltally.demo=false",
                "--leveltally.setup-code=" + CODE,
                "--leveltally.proxies=127.0.0.1");
        address = App.address(installed);
    }

    @AfterAll
    void stop() {
        installed.close();
    }

    /** What a proxy would send on, answered to it. */
    private static HttpResponse<String> forwarded(String address, String path, String cookie, String body) {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(address + path))
                .header("X-Forwarded-Proto", "https")
                // the first was typed by who asks; the last is whom the proxy saw
                .header("X-Forwarded-For", "198.51.100.66, 203.0.113.7");
        if (!body.isEmpty()) {
            request.header("Content-Type", "application/json")
                    .header("Cookie", cookie)
                    .header("X-XSRF-TOKEN", cookie.substring(cookie.indexOf('=') + 1))
                    .POST(HttpRequest.BodyPublishers.ofString(body));
        }
        try {
            return HttpClient.newHttpClient().send(request.build(), HttpResponse.BodyHandlers.ofString());
        } catch (IOException | InterruptedException broken) {
            throw new IllegalStateException(broken);
        }
    }

    @Test
    void ofManyFirstAdministratorsOneIsMadeAndSignsInThroughTheProxy() throws Exception {
        assertThat(Http.nobody(address).get("/api/session/door").body())
                .contains("\"needsFirstAdministrator\":true", "\"people\":[]");
        ExecutorService four = Executors.newFixedThreadPool(4);
        CountDownLatch together = new CountDownLatch(4);
        List<Future<Integer>> tries = IntStream.range(0, 4)
                .mapToObj(n -> four.submit(() -> {
                    Http http = Http.nobody(address);
                    http.get("/api/session/door");
                    together.countDown();
                    together.await();
                    return http.post(
                                    "/api/session/first-administrator",
                                    "{\"code\": \"" + CODE + "\", \"signIn\": \"first" + n
                                            + "\", \"name\": \"Joss Whitlock\", \"password\": \"" + PASSWORD + "\"}")
                            .status();
                }))
                .toList();
        four.shutdown();
        assertThat(tries.stream().map(InstalledTest::get).sorted()).containsExactly(200, 409, 409, 409);
        JdbcClient jdbc = installed.getBean(JdbcClient.class);
        assertThat(jdbc.sql("SELECT COUNT(*) FROM person").query(Integer.class).single())
                .isEqualTo(1);
        String signIn =
                jdbc.sql("SELECT sign_in FROM person").query(String.class).single();

        HttpResponse<String> door = forwarded(address, "/api/session/door", "", "");
        assertThat(door.headers().firstValue("Strict-Transport-Security")).isPresent();
        String token = door.headers().allValues("Set-Cookie").stream()
                .filter(cookie -> cookie.startsWith("XSRF-TOKEN"))
                .findFirst()
                .orElseThrow();
        assertThat(token).contains("Secure");
        HttpResponse<String> in = forwarded(
                address,
                "/api/session",
                token.substring(0, token.indexOf(';')),
                "{\"signIn\": \"" + signIn + "\", \"password\": \"" + PASSWORD + "\"}");
        assertThat(in.statusCode()).as(in.body()).isEqualTo(200);
        assertThat(in.headers().allValues("Set-Cookie"))
                .anySatisfy(
                        cookie -> assertThat(cookie).startsWith("leveltally=").contains("Secure", "HttpOnly"));
        assertThat(jdbc.sql("SELECT origin FROM audit_record WHERE deed = 'sign in'")
                        .query(String.class)
                        .list())
                .containsExactly("203.0.113.7");
    }

    @Test
    void headersOfNobodyConfiguredAreNotBelieved() {
        HttpResponse<String> door = forwarded(App.address(), "/api/session/door", "", "");
        assertThat(door.headers().firstValue("Strict-Transport-Security")).isEmpty();
        String token = door.headers().allValues("Set-Cookie").stream()
                .filter(cookie -> cookie.startsWith("XSRF-TOKEN"))
                .findFirst()
                .orElseThrow();
        assertThat(token).doesNotContain("Secure");
        forwarded(
                App.address(),
                "/api/session",
                token.substring(0, token.indexOf(';')),
                "{\"signIn\": \"nobody-at-all\", \"password\": \"wrong\"}");
        assertThat(App.jdbc()
                        .sql("SELECT origin FROM sign_in_attempt WHERE sign_in = 'nobody-at-all'")
                        .query(String.class)
                        .list())
                .containsExactly("127.0.0.1");
    }

    private static int get(Future<Integer> answer) {
        try {
            return answer.get();
        } catch (InterruptedException | ExecutionException broken) {
            throw new IllegalStateException(broken);
        }
    }
}
