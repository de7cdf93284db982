// What programs that look for holes ask for, whatever the site: scripts of systems that we are not, hidden files,
// backups and consoles. Readers do not type these.
const PROBE =
  /\.(?:php\d?|phtml|aspx?|ashx|jspx?|cgi|env|ini|sql|bak|old|swp|ya?ml|log|sh|exe|dll|tar|gz|rar|7z|pem|key)(?:\/|$)|(?:^|\/)\.(?:git|svn|hg|env|aws|ssh|ds_store|htaccess|htpasswd)|\/(?:wp-|xmlrpc|cgi-bin|php\w*admin|vendor\/|server-status|console\b|shell\b|autodiscover)|(?:%2e|\.){2}|%00|<|%3c|(?:union|select)(?:%20|\+)/i;

/** True for addresses that scanners ask for, not people. */
export function isProbe(key: string): boolean {
  return PROBE.test(key);
}
