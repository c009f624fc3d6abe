# Run lengths of control charts by R's package spc. Run: Rscript reference/charts.R > reference/charts.R.json   (Debian: r-cran-spc)
suppressMessages(library(spc))
a <- function(mu) xcusum.arl(k = 0.5, h = 5, mu = mu, sided = "two")
e <- function(mu) xewma.arl(l = 0.2, c = 2.962, mu = mu, sided = "two", limits = "fix")
cat(sprintf('{"made": "%s, spc %s",\n"cusum": {"k": 0.5, "h": 5, "inControl": %.6f, "oneSigma": %.6f, "twoSigma": %.6f},\n"ewma": {"lambda": 0.2, "L": 2.962, "inControl": %.6f, "oneSigma": %.6f, "twoSigma": %.6f}}\n',
  R.version.string, packageVersion("spc"), a(0), a(1), a(2), e(0), e(1), e(2)))
