# frozen_string_literal: true

require "argon2"
require "ferrum"
require_relative "scene"

module Bench
  # Somebody at the Stage: a show, a browser, and what is asked of it.
  module StageVisit
    PASSWORD = "reeds-and-water-42"
    BROWSER = {"no-sandbox" => nil, "disable-gpu" => nil, "disable-background-networking" => nil, "disable-component-update" => nil,
               "disable-sync" => nil, "no-first-run" => nil, "enable-precise-memory-info" => nil, "js-flags" => "--expose-gc"}.freeze
    FRAMES = "window.drawn = 0; requestAnimationFrame(function next() { window.drawn += 1; requestAnimationFrame(next); });"

    private

    # @param more [Integer] pieces of text besides the chat
    def with_scene(more: 0, **chat)
      @scene = Scene.new(**chat)
      @scene.add_host(PASSWORD)
      @scene.add_pieces(more)
      yield
    ensure
      @browser&.quit
      @browser = nil
      @scene&.stop
    end

    def browser
      @browser ||= Ferrum::Browser.new(browser_path: "/usr/bin/chromium-headless-shell", headless: true, window_size: [1920, 1080], timeout: 240,
        browser_options: BROWSER)
    end

    def signed_in
      page = browser.create_page
      page.go_to("#{@scene.app.address}/account/login")
      page.at_css("#login").focus.type("bench@reedmere.example")
      page.at_css("#password").focus.type(PASSWORD, :enter)
      sleep 0.1 until page.current_url.end_with?("/feeds")
      page.go_to("#{@scene.app.address}/stage")
      sleep 0.1 until page.evaluate("Boolean(document.querySelector('#draft')?.contentDocument?.querySelector('[data-piece=chat1]'))")
      page
    end

    # @return [Object] what a promise came to
    def said(page, script, *given)
      page.evaluate_async("(#{script.strip.delete_suffix(";")}).then(arguments[arguments.length - 1])".gsub("arguments[0]", given.first.to_json), 60)
    end

    def frames(page, seconds)
      page.execute(FRAMES) unless page.evaluate("'drawn' in window")
      before = page.evaluate("window.drawn")
      sleep seconds
      ((page.evaluate("window.drawn") - before) / seconds.to_f).round(1)
    end
  end
end
