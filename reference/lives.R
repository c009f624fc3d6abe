# Weibull lives by R. Run: Rscript reference/lives.R > reference/lives.R.json   (Debian: r-base-core, r-cran-survival)
# genfan: diesel generator fans, Nelson, Journal of Quality Technology 1 (1969); lung, ovarian, kidney: data of the package survival.
# Delayed entry and interval censoring: the likelihood written out and maximised by optim, apart from the project's own code.
suppressMessages(library(survival))
num <- function(v) paste0("[", paste(sprintf("%.10g", v), collapse = ", "), "]")
fit <- function(name, time, failed) {
  r <- survreg(Surv(time, failed) ~ 1, dist = "weibull")
  ll <- function(shape, scale) sum(failed * (dweibull(time, shape, scale, log = TRUE)) + (1 - failed) * pweibull(time, shape, scale, lower.tail = FALSE, log.p = TRUE))
  top <- r$loglik[1]; shape <- 1 / r$scale; scale <- exp(coef(r)[[1]])
  at <- function(f, a, b) uniroot(function(x) f(x) - (top - qchisq(0.95, 1) / 2), c(a, b), tol = 1e-10)$root
  byShape <- function(k) ll(k, (sum(time^k) / sum(failed))^(1 / k))
  byScale <- function(s) optimize(function(k) ll(k, s), c(0.02, 30), maximum = TRUE, tol = 1e-10)$objective
  sprintf('{"name": "%s", "time": %s, "failed": %s, "shape": %.10g, "scale": %.10g, "logLikelihood": %.10g, "shapeLow": %.8g, "shapeHigh": %.8g, "scaleLow": %.8g, "scaleHigh": %.8g}',
    name, num(time), num(failed), shape, scale, top, at(byShape, shape / 6, shape), at(byShape, shape, shape * 6), at(byScale, scale / 30, scale), at(byScale, scale, scale * 60))
}
set.seed(11)
n <- 40; entry <- runif(n, 0, 4000); life <- rweibull(n, 2.2, 9000)
while (any(life <= entry)) { i <- life <= entry; life[i] <- rweibull(sum(i), 2.2, 9000) }
end <- pmin(life, entry + 6000); failed <- as.numeric(life <= end)
good <- ifelse(failed == 1 & seq_len(n) %% 3 == 0, pmax(entry, end - 900), NA)
nll <- function(p) { k <- exp(p[1]); s <- exp(p[2]); H <- function(t) (t / s)^k
  l <- ifelse(failed == 0, -H(end), ifelse(!is.na(good), log(exp(-H(good)) - exp(-H(end))), dweibull(end, k, s, log = TRUE))) + H(entry)
  -sum(l, na.rm = FALSE) }
o <- optim(c(0.5, log(8000)), nll, control = list(reltol = 1e-14, maxit = 5000))
cat("{\n", sprintf('"made": "%s, survival %s",\n', R.version.string, packageVersion("survival")), sep = "")
cat('"right": [\n', fit("genfan", genfan$hours, genfan$status), ",\n", fit("lung", lung$time, lung$status - 1), ",\n", fit("ovarian", ovarian$futime, ovarian$fustat), "\n],\n", sep = "")
cat(sprintf('"mixed": {"time": %s, "entry": %s, "failed": %s, "goodAt": %s, "shape": %.8g, "scale": %.8g}\n}\n', num(end), num(entry), num(failed), gsub("NA", "null", num(good)), exp(o$par[1]), exp(o$par[2])))
