package awlsmith.server.stills;

import jakarta.servlet.http.HttpServletRequest;
import org.springframework.core.MethodParameter;
import org.springframework.stereotype.Component;
import org.springframework.web.bind.support.WebDataBinderFactory;
import org.springframework.web.context.request.NativeWebRequest;
import org.springframework.web.method.support.HandlerMethodArgumentResolver;
import org.springframework.web.method.support.ModelAndViewContainer;

/**
 * One open page of one signed-in person. What a page asks for anew stops what it asked for before, and nothing of any other page: a
 * second window of the same person is another one.
 *
 * @param session of the person; @param page a name the page made up for itself
 */
public record PageId(String session, String page) {
    static final String HEADER = "X-Page";
    private static final int LONGEST = 64;

    @Override
    public String toString() {
        return session + "/" + page;
    }

    /** Hands it to controllers. */
    @Component
    static class Resolver implements HandlerMethodArgumentResolver {
        @Override
        public boolean supportsParameter(MethodParameter parameter) {
            return parameter.getParameterType() == PageId.class;
        }

        @Override
        public PageId resolveArgument(
                MethodParameter parameter,
                ModelAndViewContainer container,
                NativeWebRequest request,
                WebDataBinderFactory binders) {
            var http = request.getNativeRequest(HttpServletRequest.class);
            String page = http.getHeader(HEADER);
            String kept = page == null ? "" : page.substring(0, Math.min(LONGEST, page.length()));
            return new PageId(http.getSession().getId(), kept);
        }
    }
}
