# frozen_string_literal: true

require "ripper"
require_relative "../support/plain"
require_relative "../../lib/bavard/pictures/kind"

# What somebody gains by bytes that one of our regular expressions takes for ever with: nothing, for none takes more time than its text
# is long. All of them are taken from the source, but for those whose whole is known only while it runs; they are listed.
class RegularExpressionsTest < Minitest::Test
  ROOT = File.expand_path("../..", __dir__)
  SHORT = 1500
  # Of processor time. In time that grows with the length the short text takes a third of it at most; with its square, many times that.
  QUICK_S = 0.002
  LENGTH = 200_000
  # Of processor time, for the long one.
  LONGEST_S = 5
  # What a text can be made of that keeps one of them busy: what it has classes, repeats and ends for.
  REPEATED = ["a", "A", "0", " ", "\t", "\n", ".", "-", "_", "/", "\\", ":", "=", ";", ",", "<", ">", "<!--", "<!---->", "<?xml", "?>", "(", ")", "()", "[", "]", "[]", "{",
    "{a}", "a.", "a ", "a, ", "a-", "0.", "0,", "1:2 ", "aA ", "é", "e\u0301", "\u0301", "🦆", "\u200d", "\uFE0F", "%2", "@", "@a", "@a ", "#", "#a", "\"", "'", "&", "&a;", "*", "+", "!",
    "|", "~", "a=", "a;", "a/", "://", "a://", "http://", "\u0003", "\u00031", "a@", "w.", "www ", "a dot ", "ha ha ", "か", "カ", "ﾀﾞ", "ɐ", ".a:hover", ":not(", "url(", "-->", "\x01ACTION "].freeze
  ENDS = ["", "\u0000"].freeze
  # Some have a name of another kind.
  NAME = Module.instance_method(:name)
  OPTIONS = {"i" => Regexp::IGNORECASE, "x" => Regexp::EXTENDED, "m" => Regexp::MULTILINE, "n" => Regexp::NOENCODING}.freeze
  # One that begins in a source, and whether all of it is written there.
  Literal = Struct.new(:line, :text, :whole)

  # @return [Hash{String => Regexp}] by where it stands
  def written
    Dir[File.join(ROOT, "lib/**/*.rb")].each_with_object({}) do |file, found|
      literals(File.read(file, encoding: "UTF-8").gsub(/\\x[89A-Fa-f]\h/, "x")) do |literal, options|
        found["#{file.delete_prefix("#{ROOT}/")}:#{literal.line}"] = Regexp.new(literal.text, options) if literal.whole
      end
    end
  end

  def literals(source)
    open = []
    Ripper.lex(source).each do |(line, _), kind, token|
      case kind
      when :on_regexp_beg then open << Literal.new(line, +"", true)
      when :on_tstring_content then open.last.text << token if open.last
      when :on_embvar then open.last.whole = false if open.last
      when :on_embexpr_beg then open << nil
      when :on_embexpr_end
        open.pop
        open.last.whole = false if open.last
      when :on_regexp_end then yield open.pop, token.scan(/[ixmn]/).sum { |letter| OPTIONS[letter] }
      end
    end
  end

  # Those put together from others: the constants of what is loaded.
  def put_together
    Dir[File.join(ROOT, "lib/bavard/{core,feeds,pictures}/**/*.rb")].each { |file| require file }
    modules = [Bavard]
    modules.each do |one|
      one.constants(false).each do |name|
        value = one.const_get(name)
        modules << value if value.is_a?(Module) && NAME.bind_call(value)&.start_with?("Bavard::") && !modules.include?(value)
      end
    end
    modules.flat_map { |one| one.constants(false).map { |name| ["#{one}::#{name}", one.const_get(name)] } }.to_h.select { |_, value| value.is_a?(Regexp) }
  end

  # @return [String, nil] what it takes too long with
  def too_long_with(expression)
    reader, writer = IO.pipe
    pid = fork do
      reader.close
      TEXTS.each do |part, ending, from|
        Process.setrlimit(Process::RLIMIT_CPU, cpu_s.ceil + LONGEST_S, Process::RLIM_INFINITY)
        grown(expression, part, ending)
        writer.syswrite("#{from}\n")
      end
      exit!(0)
    end
    writer.close
    told = reader.read
    return if Process.wait2(pid).last.success?

    TEXTS.each { |_, _, from| return from unless told.lines(chomp: true).include?(from) }
  ensure
    reader.close
  end

  TEXTS = REPEATED.product(ENDS).map { |part, ending| [part, ending, "#{part.dump} and #{ending.dump}"] }.freeze

  # A machine that others use counts time of theirs as well; what grows with the square takes too long each time.
  def always_too_long_with(expression)
    found = nil
    3.times { found = too_long_with(expression) or return }
    found
  end

  # What has looked at a short one so quickly grows with its length at most.
  def grown(expression, part, ending)
    before_s = cpu_s
    tried(expression, text(part, ending, SHORT))
    tried(expression, text(part, ending, LENGTH)) if cpu_s - before_s > QUICK_S
  end

  def text(part, ending, length) = "#{part * (length / part.length)}#{ending}"
  def cpu_s = Process.clock_gettime(Process::CLOCK_PROCESS_CPUTIME_ID)

  def tried(expression, text)
    text = text.b if expression.options.anybits?(Regexp::NOENCODING)
    expression.match?(text)
  rescue Encoding::CompatibilityError
    nil
  end

  def test_a_server_that_stands_still
    all = written.merge(put_together).to_a.uniq { |_, one| [one.source, one.options] }
    assert_operator all.size, :>, 250
    found = all.each_slice((all.size / 2.0).ceil).map { |some| Thread.new { some.filter_map { |place, one| always_too_long_with(one)&.then { |text| "#{place} #{one.inspect[0, 80]}: #{text}" } } } }
    assert_empty found.flat_map(&:value)
  end

  def test_a_file_that_may_be_a_picture_is_passed_over_once
    ["<!---->" * 60, "<!--" * 2000, "<?xml?>" * 1000, "<!DOCTYPE>" * 900, " " * 8000, "<!-- --><!--" * 500].each { |bytes| assert_nil Bavard::Pictures::Kind.of(bytes), bytes[0, 20] }
    ["<svg>", "\uFEFF<?xml version='1.0'?> <!-- a <svg> --> <!DOCTYPE svg><svg width='1'>", "<!----><svg\n>"].each { |bytes| assert_equal :svg, Bavard::Pictures::Kind.of(bytes) }
    ["<svgx>", "<!-- <svg>", "x<svg>", "<?xml <svg>"].each { |bytes| assert_nil Bavard::Pictures::Kind.of(bytes) }
  end
end
