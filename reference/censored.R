# Quantiles of values of which some are only known to be "less than" a bound, by the Kaplan-Meier estimate of the
# turned values (package survival, recommended with R). Writes censored.R.json.
library(survival)
set.seed(4406)
quantile_left <- function(values, below, p) {
  top <- max(values) + 1
  fit <- survfit(Surv(top - values, !below) ~ 1)
  # F(x) = P(X <= x) = P(top - X >= top - x) = S just before (top - x)
  levels <- sort(unique(values[!below]))
  if (length(levels) == 0) return(NA)
  before <- function(t) { k <- which(fit$time < t - 1e-12); if (length(k) == 0) 1 else fit$surv[max(k)] }
  F <- sapply(levels, function(x) before(top - x))
  at <- function(t) { k <- which(fit$time <= t + 1e-12); if (length(k) == 0) 1 else fit$surv[max(k)] }
  if (at(top - levels[1]) >= p - 1e-12) return(NA)
  levels[which(F >= p - 1e-12)[1]]
}
cases <- lapply(1:60, function(i) {
  n <- sample(3:30, 1)
  values <- round(rlnorm(n, 1, 0.7), 1)
  below <- runif(n) < sample(c(0, 0.2, 0.5), 1)
  p <- sample(c(0.1, 0.25, 0.5, 0.75, 0.9), 1)
  q <- quantile_left(values, below, p)
  sprintf('{"values":[%s],"below":[%s],"p":%s,"quantile":%s}', paste(values, collapse = ","), paste(tolower(below), collapse = ","), p, if (is.na(q)) "null" else q)
})
writeLines(paste0('{"made":"', R.version.string, ", survival ", packageVersion("survival"), '","cases":[', paste(cases, collapse = ",\n"), "]}"), "reference/censored.R.json")
