# frozen_string_literal: true

require "openssl"
require "securerandom"

# A certificate that a server made for itself, of which this process can be told to trust it.
class TrustedCertificate
  BITS = 2048
  HOUR_S = 3600
  DAY_S = 24 * HOUR_S

  attr_reader :certificate, :key

  # @param names [Array<String>] such as "DNS:reedmere.example" or "IP:127.0.0.1"
  def initialize(*names)
    @key = OpenSSL::PKey::RSA.new(BITS)
    @certificate = OpenSSL::X509::Certificate.new.tap { |made| fill(made, names) }
  end

  # For as long as the process lives.
  def trust
    OpenSSL::SSL::SSLContext::DEFAULT_CERT_STORE.add_cert(certificate)
    self
  end

  # @return [OpenSSL::SSL::SSLContext] of a server that has it
  def context = OpenSSL::SSL::SSLContext.new.tap { |made| made.add_certificate(certificate, key) }

  private

  def fill(made, names)
    made.version = 2
    made.serial = SecureRandom.random_number(1 << 64)
    # Of two that are trusted under one name only the first is found, and the other taken for a forgery.
    made.subject = made.issuer = OpenSSL::X509::Name.parse("/CN=#{SecureRandom.uuid}")
    made.public_key = key.public_key
    made.not_before = Time.now - DAY_S
    made.not_after = Time.now + DAY_S
    made.add_extension(OpenSSL::X509::ExtensionFactory.new.create_extension("subjectAltName", names.join(",")))
    made.sign(key, OpenSSL::Digest.new("SHA256"))
  end
end
