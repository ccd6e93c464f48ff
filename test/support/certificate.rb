# frozen_string_literal: true

require "openssl"

# One that somebody made for themselves, for an hour.
module Certificate
  module_function

  # @param folder [String] gets key.pem and certificate.pem
  # @param host [String] whose it is
  def make(folder, host)
    key = OpenSSL::PKey::EC.generate("prime256v1")
    certificate = OpenSSL::X509::Certificate.new.tap do |made|
      made.subject = made.issuer = OpenSSL::X509::Name.parse("/CN=#{host}")
      made.public_key = key
      made.serial = 1
      made.version = 2
      made.not_before = Time.now - 60
      made.not_after = Time.now + 3600
      made.sign(key, "SHA256")
    end
    File.write("#{folder}/key.pem", key.to_pem)
    File.write("#{folder}/certificate.pem", certificate.to_pem)
  end
end
