# Trend statistics by R, on data sets that R carries. Run: Rscript reference/statistics.R > reference/statistics.R.json
# Debian: r-base-core. Nile: annual flow at Aswan (Durbin and Koopman 2001); cars: stopping distances
# (Ezekiel 1930); airquality: New York 1973 (Chambers et al. 1983); faithful: Azzalini and Bowman (1990).
num <- function(v) paste0("[", paste(sprintf("%.15g", v), collapse = ", "), "]")
kendall <- function(x, y) {
  t <- suppressWarnings(cor.test(x, y, method = "kendall", exact = FALSE, continuity = TRUE))
  sprintf('"tau": %.15g, "z": %.15g, "p": %.15g', t$estimate, t$statistic, t$p.value)
}
line <- function(name, x, y, w, at) {
  fit <- lm(y ~ x, weights = w)
  p <- predict(fit, data.frame(x = at), interval = "prediction", level = 0.95, weights = 1)
  ci <- confint(fit, level = 0.95)
  sprintf('{"name": "%s", "x": %s, "y": %s, "w": %s, "slope": %.15g, "intercept": %.15g, "slopeError": %.15g, "sigma": %.15g, "slopeLow": %.15g, "slopeHigh": %.15g, "at": %.15g, "fit": %.15g, "low": %.15g, "high": %.15g}',
    name, num(x), num(y), num(w), coef(fit)[2], coef(fit)[1], summary(fit)$coefficients[2, 2], summary(fit)$sigma, ci[2, 1], ci[2, 2], at, p[1], p[2], p[3])
}
nile <- as.numeric(Nile)
oz <- na.omit(airquality[, c("Ozone", "Temp")])
cat("{\n")
cat(sprintf('"made": "%s",\n', R.version.string))
cat('"mannKendall": [\n')
cat(sprintf('{"name": "Nile", "y": %s, %s},\n', num(nile), kendall(seq_along(nile), nile)))
cat(sprintf('{"name": "airquality$Temp (ties)", "y": %s, %s},\n', num(airquality$Temp), kendall(seq_along(airquality$Temp), airquality$Temp)))
cat(sprintf('{"name": "faithful$eruptions", "y": %s, %s}\n],\n', num(faithful$eruptions[1:80]), kendall(1:80, faithful$eruptions[1:80])))
cat('"lines": [\n')
cat(line("cars, equal weights", cars$speed, cars$dist, rep(1, 50), 30), ",\n")
cat(line("cars, weights 1/speed", cars$speed, cars$dist, 1 / cars$speed, 12.5), ",\n")
cat(line("airquality Ozone on Temp, weights by row", oz$Temp, oz$Ozone, seq_along(oz$Temp) / 50, 85), "\n],\n")
cat(sprintf('"student": {"p": [0.9, 0.975, 0.995], "df": 7, "q": %s},\n', num(qt(c(0.9, 0.975, 0.995), 7))))
cat(sprintf('"normal": {"p": [0.01, 0.1, 0.5, 0.975], "q": %s}\n}\n', num(qnorm(c(0.01, 0.1, 0.5, 0.975)))))
