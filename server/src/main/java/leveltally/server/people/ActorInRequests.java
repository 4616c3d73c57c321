package leveltally.server.people;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.time.Instant;
import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.people.PersonId;
import leveltally.server.company.BusinessDay;
import leveltally.server.frame.Needs;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.MethodParameter;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.bind.support.WebDataBinderFactory;
import org.springframework.web.context.request.NativeWebRequest;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.method.support.HandlerMethodArgumentResolver;
import org.springframework.web.method.support.ModelAndViewContainer;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** Turns the session into the {@link Actor} of a deed, and refuses what their roles do not allow. */
@Configuration
class ActorInRequests implements WebMvcConfigurer {
    static {
        SpringDocUtils.getConfig().addRequestWrapperToIgnore(Actor.class);
    }

    private static final String ACTOR = ActorInRequests.class.getName();
    private static final String MUST_CHANGE = ACTOR + ".mustChange";

    private final People people;
    private final BusinessDay day;

    ActorInRequests(People people, BusinessDay day) {
        this.people = people;
        this.day = day;
    }

    @Override
    public void addArgumentResolvers(List<HandlerMethodArgumentResolver> resolvers) {
        resolvers.add(new ActorResolver());
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        // one's session needs only a session
        registry.addInterceptor(new Rights())
                .addPathPatterns("/api/**")
                .excludePathPatterns("/api/session/**", "/api/session", "/api/openapi/**");
    }

    private Actor actor(HttpServletRequest request) {
        if (request.getAttribute(ACTOR) instanceof Actor known) {
            return known;
        }
        var authentication = SecurityContextHolder.getContext().getAuthentication();
        long id = authentication == null || !authentication.getName().matches("\\d+")
                ? 0
                : Long.parseLong(authentication.getName());
        People.Person person = people.find(new PersonId(id))
                .orElseThrow(() -> Refusal.notAllowed("disabled", "You can no longer sign in here."));
        Actor actor = new Actor(
                person.id(), person.name(), person.roles(), day.today(), Instant.now(), request.getRemoteAddr());
        request.setAttribute(ACTOR, actor);
        request.setAttribute(MUST_CHANGE, person.mustChangePassword());
        return actor;
    }

    /** Refuses what an endpoint's {@link Needs} does not allow; an endpoint without one is refused to everybody. */
    private final class Rights implements HandlerInterceptor {
        @Override
        public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
            if (!(handler instanceof HandlerMethod method)) {
                return true;
            }
            Needs needs = method.getMethodAnnotation(Needs.class);
            if (needs == null && request.getMethod().equals("GET")) {
                needs = method.getBeanType().getAnnotation(Needs.class);
            }
            if (needs == null) {
                throw Refusal.notAllowed("no-right", "Nobody has been given the right to do this.");
            }
            Actor actor = actor(request);
            if (Boolean.TRUE.equals(request.getAttribute(MUST_CHANGE))) {
                throw Refusal.notAllowed(
                        "change-password", "Somebody else set your password. Change it first, then go on.");
            }
            actor.mayDo(needs.value());
            return true;
        }
    }

    private final class ActorResolver implements HandlerMethodArgumentResolver {
        @Override
        public boolean supportsParameter(MethodParameter parameter) {
            return parameter.getParameterType() == Actor.class;
        }

        @Override
        public Object resolveArgument(
                MethodParameter parameter,
                ModelAndViewContainer container,
                NativeWebRequest request,
                WebDataBinderFactory binders) {
            return actor((HttpServletRequest) request.getNativeRequest());
        }
    }
}
