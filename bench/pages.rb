# frozen_string_literal: true

require_relative "stage_visit"

module Bench
  # How soon each station paints, cold and warm, and how much of styles and scripts it brings; and how far a stranger has from an account
  # that is not there yet to a line that a screen has painted.
  class Pages
    include StageVisit

    STATIONS = %w[/feeds /gate /people/ /log/ /dress /dress/cast/ /dress/cues/ /dress/files/ /dress/fellows/ /stage /links /links/report
      /prompter/].freeze
    TIMES = 5
    # Styles and scripts, as they went over the line; frames of the page bring their own.
    BROUGHT = <<~JS
      (() => {
        const paint = performance.getEntriesByName("first-contentful-paint")[0]?.startTime ?? null;
        const sum = (ending) => performance.getEntriesByType("resource").filter(({ name }) => new URL(name).pathname.endsWith(ending))
          .reduce((all, { encodedBodySize }) => all + encodedBodySize, 0);
        return [paint, sum(".css"), sum(".js")];
      })()
    JS
    # As somebody does it who reads what they see: a press, and a letter.
    PRESS_S = 2.5
    LETTER_S = 0.25
    GIVE_UP_S = 40
    OTHER_CHAT = "[...document.querySelector('#lead-place').options].findIndex(({ text }) => text === 'Any IRC server')"

    def run
      with_scene do
        signed_in.close
        found = STATIONS.to_h { |path| [path, station(path)] }
        path = stranger
        {stations: found, slowest_ms: found.values.map { |one| one[:warm_ms] }.max, slowest_cold_ms: found.values.map { |one| one[:cold_ms] }.max,
         most_css_kb: found.values.map { |one| one[:css_kb] }.max, most_js_kb: found.values.map { |one| one[:js_kb] }.max, stranger: path}
      end
    end

    private

    def station(path)
      cold, css, js = opened(path, cold: true)
      warm = Array.new(TIMES) { opened(path).first }
      {cold_ms: cold.round, warm_ms: warm.sort[TIMES / 2].round, css_kb: (css / 1000.0).round, js_kb: (js / 1000.0).round}
    end

    def opened(path, cold: false)
      page = browser.contexts.default_context.create_page
      page.command("Network.enable")
      page.command("Network.setCacheDisabled", cacheDisabled: cold)
      page.go_to("#{@scene.app.address}#{path}")
      sleep 0.05 until page.evaluate(BROUGHT).first
      sleep 0.4
      page.evaluate(BROUGHT)
    ensure
      page&.close
    end

    # From the way in to a painted line.
    # @return [Hash] presses, fields, and how long that takes at human pace: what is pressed and typed here, and what the machine needs
    def stranger
      @presses = @fields = @letters = 0
      began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      page = browser.contexts.create.create_page
      walk_to_air(page)
      took = Process.clock_gettime(Process::CLOCK_MONOTONIC) - began
      {presses: @presses, fields: @fields, letters: @letters,
       at_human_pace_s: (took + (@presses * PRESS_S) + (@letters * LETTER_S)).round}
    end

    def walk_to_air(page)
      page.go_to("#{@scene.app.address}/account/create-account")
      {"login" => "maren@kiln.example", "password" => PASSWORD}.each { |name, text| type(page, "input[name=#{name}]", text) }
      press(page, "form [type=submit]", last: true)
      connect(page)
      say_until(page, "[data-step=picture].open")
      press(page, "[data-picture=table]")
      until_there(page, "[data-outfit=field_notes]")
      press(page, "[data-outfit=field_notes]")
      sleep 0.2 while page.evaluate("document.querySelector('#lead-take').disabled")
      press(page, "#lead-take")
      until_there(page, "[data-step=program].open")
      page.execute("navigator.clipboard.writeText = async (text) => { window.copied = text; }")
      press(page, "[data-copy=link]")
      wait_until("the link") { page.evaluate("window.copied") }
      painted(page)
    end

    def connect(page)
      until_there(page, "[data-step=chat].open")
      page.execute("const place = document.querySelector('#lead-place'); place.selectedIndex = #{OTHER_CHAT}; " \
                   "place.dispatchEvent(new Event('change'));")
      @presses += 1
      type(page, "#lead-address", "irc://127.0.0.1:#{@scene.typist.port}/#dawn")
      press(page, "#lead-chat-form .do")
      sleep 0.2
    end

    # Their broadcast program, and a line from another account.
    def painted(page)
      screen = browser.contexts.create.create_page
      screen.command("Emulation.setDeviceMetricsOverride", width: 1920, height: 1080, deviceScaleFactor: 1, mobile: false)
      screen.go_to(page.evaluate("window.copied"))
      say_until(page, "[data-step=proof][data-state=done]")
    end

    def say_until(page, selector)
      number = 0
      wait_until(selector) do
        number += 1
        @scene.typist.say("hello #{number}") if (number % 10).zero?
        page.at_css(selector)
      end
    end

    def until_there(page, selector) = wait_until(selector) { page.at_css(selector) }

    def wait_until(what)
      deadline = Process.clock_gettime(Process::CLOCK_MONOTONIC) + GIVE_UP_S
      until yield
        raise "#{what} did not come" if Process.clock_gettime(Process::CLOCK_MONOTONIC) > deadline

        sleep 0.1
      end
    end

    def type(page, selector, text)
      page.at_css(selector).focus.type(text)
      @fields += 1
      @letters += text.length
    end

    def press(page, selector, last: false)
      found = page.css(selector)
      (last ? found.last : found.first).click
      @presses += 1
    end
  end
end
