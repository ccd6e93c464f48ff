# frozen_string_literal: true

source "https://rubygems.org"

ruby ">= 3.1"

gem "addressable", "~> 2.9"
gem "argon2", "~> 2.3"
gem "cld3", "~> 3.7"
gem "crass", "~> 1.0"
gem "erubi", "~> 1.13"
gem "ffi", "~> 1.17"
gem "jmespath", "~> 1.6"
gem "json_schemer", "~> 2.5"
gem "mail", "~> 2.9"
gem "nio4r", "~> 2.7"
gem "nokogiri", "~> 1.18"
gem "oauth2", "~> 2.0"
gem "pg", "~> 1.6"
gem "prometheus-client", "~> 5.0"
gem "public_suffix", "~> 6.0"
gem "puma", "~> 8.0"
gem "rack-attack", "~> 6.8"
gem "roda", "~> 3.109"
gem "rodauth", "~> 2.49"
gem "rotp", "~> 6.3"
gem "rqrcode", "~> 3.1"
gem "ruby-vips", "~> 2.2"
gem "rubyzip", "~> 3.0"
gem "semantic_logger", "~> 4.17"
gem "sequel", "~> 5.110"
# Sequel finds it, and reads rows with it.
gem "sequel_pg", "~> 1.20"
gem "sinatra", "~> 4.2"
gem "tilt", "~> 2.6"
gem "unicode-confusable", "~> 1.14"
gem "websocket-driver", "~> 0.8"

group :test do
  gem "axe-core-api", "~> 4.11"
  gem "capybara", "~> 3.40"
  gem "cuprite", "~> 0.19"
  gem "minitest", "~> 5.27"
  gem "prop_check", "~> 1.0"
  gem "rack-test", "~> 2.2"
  gem "rubocop", "~> 1.80", require: false
  gem "rubocop-minitest", "~> 0.38", require: false
  gem "rubocop-performance", "~> 1.26", require: false
  gem "rubocop-sequel", "~> 0.4", require: false
  gem "simplecov", "~> 0.22", require: false
end
